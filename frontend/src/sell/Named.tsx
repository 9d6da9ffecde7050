/** A list entry with an editable name. */
export function Named(props: { label: string; value: string; onValue: (value: string) => void }) {
  return (
    <input
      key={props.value}
      aria-label={props.label}
      defaultValue={props.value}
      maxLength={60}
      className="w-full min-w-0 rounded-[3px] border border-transparent bg-transparent px-1 py-1 text-sm hover:border-rule focus:bg-paper"
      onBlur={(event) => {
        const value = event.target.value.trim();
        if (value && value !== props.value) props.onValue(value);
        else event.target.value = props.value;
      }}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
    />
  );
}

/** A name that no entry has yet. */
export function fresh(word: string, among: { title: string }[]): string {
  for (let n = among.length + 1; ; n++) if (!among.some(({ title }) => title === `${word} ${n}`)) return `${word} ${n}`;
}
