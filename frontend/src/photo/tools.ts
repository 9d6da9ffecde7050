/** What the pointer does on a photograph. */
export type Tool = "points" | "box" | "keep" | "leave" | "front" | "behind" | "spot";
