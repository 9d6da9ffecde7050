/** The colour behind the artwork: one that shows leftovers and pale edges, the blank's own, or any. */
export function Backings(props: { value: string; blank: string; onValue: (colour: string) => void }) {
  const known: [string, string][] = [
    ["Sage", "#8db5a6"],
    ["Night", "#26242b"],
    ["Poppy", "#d8553f"],
    ["White", "#ffffff"],
    ["Blank", props.blank],
  ];
  return (
    <fieldset className="flex items-center gap-1">
      <legend className="sr-only">Backing</legend>
      <span className="mr-1 text-xs text-soft">On</span>
      {known.map(([name, colour]) => (
        <button
          key={name}
          type="button"
          aria-pressed={colour === props.value}
          onClick={() => props.onValue(colour)}
          className={`flex items-center gap-1 border px-1.5 py-0.5 text-xs ${colour === props.value ? "border-ink bg-paper" : "border-transparent"}`}
        >
          <span className="size-3 border border-soft" style={{ backgroundColor: colour }} aria-hidden="true" />
          {name}
        </button>
      ))}
      <input
        type="color"
        aria-label="Custom backing"
        title="Custom backing"
        value={props.value}
        onChange={(event) => props.onValue(event.target.value)}
        className="h-6 w-8 border border-rule"
      />
    </fieldset>
  );
}
