/** The look of text fields. */
export const INPUT = "w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm";

/** A text field, of one line or several, that is saved when it is left. */
export function KeptText(props: {
  id?: string;
  /** Accessible name if there is no label before it. */
  name?: string;
  value: string;
  rows?: number;
  most?: number;
  hint?: string;
  title?: string;
  className?: string;
  onValue: (value: string) => void;
}) {
  const common = {
    id: props.id,
    defaultValue: props.value,
    placeholder: props.hint,
    title: props.title,
    maxLength: props.most,
    "aria-label": props.name,
    className: props.className ?? INPUT,
    onBlur: (event: React.FocusEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      const value = event.target.value.trim();
      if (value !== props.value) props.onValue(value);
    },
  };
  // a value changed elsewhere replaces the text
  return props.rows ? (
    <textarea key={props.value} rows={props.rows} {...common} />
  ) : (
    <input key={props.value} onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()} {...common} />
  );
}
