"""What the interface says of itself: beside what each operation answers, what every one of them may."""

from typing import Any

from fastapi import FastAPI
from fastapi.openapi.utils import get_openapi

from fortis.api.problems import ProblemDetail

PROBLEM = "application/problem+json"
ANY = {
    "404": "There is nothing at this address.",
    "421": "Fortis does not go by that name.",
    "422": "It cannot be taken as it is.",
    "500": "The record is damaged, or Fortis at fault.",
    "503": "The record is busy, or cannot be used: try again after `Retry-After` seconds.",
}
WRITES = {
    "400": "The body is no JSON at all.",
    "403": "It comes from another page.",
    "413": "The body is too long.",
    "415": "The body is of another kind.",
    "507": "The disk is full.",
}


def describe(app: FastAPI) -> None:
    """Let an application tell every answer it gives, errors as problems under their own media type."""

    def openapi() -> dict[str, Any]:
        if app.openapi_schema is None:
            app.openapi_schema = _described(app)
        return app.openapi_schema

    app.openapi = openapi  # type: ignore[method-assign]


def _described(app: FastAPI) -> dict[str, Any]:
    told = get_openapi(title=app.title, version=app.version, routes=app.routes)
    schemas = told["components"]["schemas"]
    for unused in ("HTTPValidationError", "ValidationError"):
        schemas.pop(unused, None)
    own = ProblemDetail.model_json_schema(ref_template="#/components/schemas/{model}")
    schemas.update(own.pop("$defs", {}))
    schemas[ProblemDetail.__name__] = own
    content = {PROBLEM: {"schema": {"$ref": f"#/components/schemas/{ProblemDetail.__name__}"}}}
    for path in told["paths"].values():
        for method, operation in path.items():
            answers = operation["responses"]
            for status, words in (ANY | ({} if method == "get" else WRITES)).items():
                answers.setdefault(status, {"description": words})
            for status, answer in answers.items():
                if status >= "400":
                    answer["content"] = content
    return told
