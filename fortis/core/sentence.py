"""Words as a sentence begins."""


def capitalised(words: str) -> str:
    """Words with a capital first letter, the others as they are; not empty."""
    return words[0].upper() + words[1:]
