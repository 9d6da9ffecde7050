/** Test patterns that make a mismatch visible, in mm of the design. */
export function Grounds() {
  const line = { stroke: "#fff", strokeWidth: 3, fill: "none" };
  const dark = { ...line, stroke: "#111", strokeWidth: 6 };
  const of = (d: string) => (
    <>
      <path d={d} {...dark} />
      <path d={d} {...line} />
    </>
  );
  const tile = { width: 40, height: 40, patternUnits: "userSpaceOnUse" } as const;
  return (
    <defs>
      <pattern id="over-stripes" {...tile}>
        {of("M0 20H40")}
      </pattern>
      <pattern id="over-squares" {...tile}>
        {of("M0 20H40M20 0V40")}
      </pattern>
      <pattern id="over-slants" {...tile}>
        {of("M-10 10L10 -10M-10 50L50 -10M30 50L50 30")}
      </pattern>
    </defs>
  );
}
