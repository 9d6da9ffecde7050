/** x' = a x + c y + e, y' = b x + d y + f, as SVG writes it. */
export type Matrix = [number, number, number, number, number, number];
export type Point = [number, number];
export type Box = { x: number; y: number; w: number; h: number };

export const moved = ([a, b, c, d, e, f]: Matrix, points: Point[]): Point[] =>
  points.map(([x, y]) => [a * x + c * y + e, b * x + d * y + f]);

/** The inverse matrix. */
export function undone([a, b, c, d, e, f]: Matrix): Matrix {
  const det = a * d - b * c;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

export function boxOf(points: Point[]): Box {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y };
}

export const pathOf = (points: Point[]) => `M${points.map((p) => p.join(" ")).join("L")}Z`;
