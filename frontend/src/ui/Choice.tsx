import { RadioGroup } from "radix-ui";

/** A choice of a few options, as words on one line. */
export function Choice<T extends string>(props: {
  label: string;
  value: T;
  options: readonly { value: T; label: string; hint?: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label={props.label}
      orientation="horizontal"
      value={props.value}
      onValueChange={(value) => props.onChange(value as T)}
      className="flex rounded-[3px] border border-rule bg-paper"
    >
      {props.options.map(({ value, label, hint }) => (
        <RadioGroup.Item
          key={value}
          value={value}
          title={hint}
          className={`grow border-r border-rule ${props.options.length > 4 ? "px-1" : "px-2"} py-1 text-center text-sm last:border-r-0 hover:bg-table data-[state=checked]:bg-ink data-[state=checked]:text-paper`}
        >
          {label}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
