"""What the browser prints, rendered: how far down each page goes, and whether it keeps to its margins."""

import numpy as np
import pypdfium2
from numpy.typing import NDArray

DOTS_PER_MM = 4
INK = 128  # darker is ink; the grey of a page's ground is not


def pages_of(pdf: bytes) -> list[NDArray[np.uint8]]:
    """Every page in shades of grey, rows from the top."""
    document = pypdfium2.PdfDocument(pdf)
    scale = DOTS_PER_MM * 25.4 / 72
    return [page.render(scale=scale, grayscale=True).to_numpy() for page in document]


def ink_mm(page: NDArray[np.uint8]) -> tuple[float, float, float, float]:
    """The box that holds all that is printed: left, top, right and bottom, in mm from the left upper edge."""
    rows, columns = np.where(page < INK)
    if rows.size == 0:
        return 0.0, 0.0, 0.0, 0.0
    box = columns.min(), rows.min(), columns.max(), rows.max()
    return tuple(float(each) / DOTS_PER_MM for each in box)  # type: ignore[return-value]
