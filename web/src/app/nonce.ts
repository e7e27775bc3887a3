import { setNonce } from "get-nonce";

/** The word by which the page's own style elements are told from foreign ones; the server makes one for each page. */
export const styleNonce = document.querySelector<HTMLMetaElement>("meta[name=style-nonce]")?.content ?? "";

setNonce(styleNonce);
