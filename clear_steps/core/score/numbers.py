"""Numbers as people and files write them, short enough to be computed with."""

import re
from fractions import Fraction

_NUMBER = re.compile(r"[+-]?(?:\d{1,9}(?:\.\d{0,9})?|\.\d{1,9}|\d{1,9}/\d{1,9})", re.ASCII)


def parse_number(text: str) -> Fraction | None:
    """`96`, `96.5` or `289/3`; None for anything else.

    An exponent is none of these: the fraction of `1e99999999` would be computed digit by digit.
    """
    text = text.strip()
    if not _NUMBER.fullmatch(text):
        return None
    try:
        return Fraction(text)
    except ZeroDivisionError:
        return None
