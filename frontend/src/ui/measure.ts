/** Lengths as people type them: in in, mm, cm or px, with calculations. Internally all lengths are in millimetres. */

export type Unit = "in" | "mm";
export const MM_PER_IN = 25.4;

export const fahrenheit = (celsius: number) => celsius * 1.8 + 32;
export const celsius = (fahrenheit: number) => (fahrenheit - 32) / 1.8;

export function show(mm: number, unit: Unit, digits = unit === "in" ? 3 : 1): string {
  const value = unit === "in" ? mm / MM_PER_IN : mm;
  const text = value.toFixed(digits).replace(/\.?0+$/, "");
  return text === "-0" ? "0" : text;
}

/** `factor` is the unit a single number was written with, in mm. */
type Value = { value: number; length: boolean; factor?: number };

/**
 * The value of a sum such as `9.3in/2 + 3mm`. Bare numbers take `bare` as their unit where a length is wanted,
 * and stay plain beside `*` and `/`. Returns null where it cannot be read. `dpi` says what a px is.
 */
export function parseLength(text: string, bare: Unit, dpi: number): number | null {
  const sum = parseSum(text, { in: MM_PER_IN, '"': MM_PER_IN, mm: 1, cm: 10, px: MM_PER_IN / dpi });
  if (!sum) return null;
  const mm = sum.length ? sum.value : sum.value * (bare === "in" ? MM_PER_IN : 1);
  return Number.isFinite(mm) ? mm : null;
}

/** The value of a plain sum such as `100/3`; a trailing `%` or `°` is passed over. */
export function parsePlain(text: string): number | null {
  const sum = parseSum(text.replace(/[%°]\s*$/, ""), {});
  return sum && Number.isFinite(sum.value) ? sum.value : null;
}

function parseSum(text: string, units: Record<string, number>): Value | null {
  const tokens = text.replaceAll(",", ".").match(/\d*\.?\d+|[a-z"]+|[-+*/()]|\S/gi) ?? [];
  let at = 0;
  const peek = () => tokens[at]?.toLowerCase();

  function atom(): Value | null {
    const token = peek();
    if (token === undefined) return null;
    at += 1;
    if (token === "-" || token === "+") {
      const inner = atom();
      return inner && { ...inner, value: token === "-" ? -inner.value : inner.value };
    }
    if (token === "(") {
      const inner = sum();
      if (peek() !== ")") return null;
      at += 1;
      return inner;
    }
    if (!/^[\d.]+$/.test(token)) return null;
    const factor = units[peek() ?? ""];
    if (factor === undefined) return { value: Number(token), length: false };
    at += 1;
    return { value: Number(token) * factor, length: true, factor };
  }

  function product(): Value | null {
    let left = atom();
    while (left && (peek() === "*" || peek() === "/")) {
      const times = tokens[at++] === "*";
      const right = atom();
      if (!right) return null;
      if (left.length && right.length && times) return null;
      if (!times && !left.length && right.factor) {
        // 1/8in is an eighth of an inch: the unit belongs to the fraction
        left = { value: (left.value / right.value) * right.factor ** 2, length: true };
        continue;
      }
      const length: boolean = times ? left.length || right.length : left.length && !right.length;
      left = { value: times ? left.value * right.value : left.value / right.value, length };
    }
    return left;
  }

  function sum(): Value | null {
    let left = product();
    while (left && (peek() === "+" || peek() === "-")) {
      const plus = tokens[at++] === "+";
      const right = product();
      if (!right || left.length !== right.length) return null;
      left = { value: plus ? left.value + right.value : left.value - right.value, length: left.length };
    }
    return left;
  }

  const result = sum();
  return at === tokens.length ? result : null;
}
