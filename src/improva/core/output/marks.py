"""Lines, targets and labels on sheets, outside the art, as PDF content."""

from __future__ import annotations

from dataclasses import dataclass, field

from ..units import points

TARGET_MM = 1.6
LINE_PT = 0.35


@dataclass
class Marks:
    """The content of one page, collected in mm from its top left corner."""

    height_mm: float
    _parts: list[str] = field(default_factory=list)

    def _at(self, x: float, y: float) -> str:
        return f"{points(x):.4f} {points(self.height_mm - y):.4f}"

    def line(self, x0: float, y0: float, x1: float, y1: float, width_pt: float = LINE_PT, dashed: bool = False) -> None:
        """Add a black line; dashed for cutting."""
        dash = "[4 3] 0 d " if dashed else ""
        self._parts.append(f"q 0 G {width_pt} w {dash}{self._at(x0, y0)} m {self._at(x1, y1)} l S Q\n")

    def box(self, x: float, y: float, w: float, h: float, dashed: bool = False) -> None:
        """Add the outline of a box."""
        dash = "[4 3] 0 d " if dashed else ""
        self._parts.append(f"q 0 G {LINE_PT} w {dash}{self._at(x, y + h)} {points(w):.4f} {points(h):.4f} re S Q\n")

    def target(self, x: float, y: float) -> None:
        """Add a registration target: sheets are aligned when their targets coincide."""
        r = TARGET_MM
        self.line(x - 1.5 * r, y, x + 1.5 * r, y)
        self.line(x, y - 1.5 * r, x, y + 1.5 * r)
        k = 0.5523 * r  # a circle's quarter as a Bézier curve
        quarter = (
            (r, 0, r, k, k, r, 0, r),
            (0, r, -k, r, -r, k, -r, 0),
            (-r, 0, -r, -k, -k, -r, 0, -r),
            (0, -r, k, -r, r, -k, r, 0),
        )
        for ax, ay, bx, by, cx, cy, dx, dy in quarter:
            self._parts.append(
                f"q 0 G {LINE_PT} w {self._at(x + ax, y + ay)} m {self._at(x + bx, y + by)} {self._at(x + cx, y + cy)} "
                f"{self._at(x + dx, y + dy)} c S Q\n"
            )

    def text(self, x: float, y: float, words: str, size_pt: float = 6.5, plate: bool = False) -> None:
        """Add text with its baseline at ``y``, on a white plate over a picture."""
        escaped = words.replace("\\", r"\\").replace("(", r"\(").replace(")", r"\)")
        if plate:
            wide, high = 0.62 * size_pt * len(words), 1.3 * size_pt
            self._parts.append(
                f"q 1 g {points(x) - 2:.3f} {points(self.height_mm - y) - 0.3 * size_pt:.3f} {wide:.3f} {high:.3f} re f Q\n"
            )
        self._parts.append(f"BT 0 g /F1 {size_pt} Tf {self._at(x, y)} Td ({escaped}) Tj ET\n")

    def content(self) -> str:
        """Return the content."""
        return "".join(self._parts)
