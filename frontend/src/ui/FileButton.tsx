import { type ReactNode, useRef } from "react";
import { Button } from "./parts";

/** A button that lets files be chosen. `name` is what a screen reader calls the choice. */
export function FileButton(props: {
  name: string;
  accept: string;
  multiple?: boolean;
  tone?: "main" | "plain";
  className?: string;
  onFiles: (files: File[]) => void;
  children: ReactNode;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={chooser}
        type="file"
        multiple={props.multiple}
        accept={props.accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={props.name}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length) props.onFiles(files);
        }}
      />
      <Button tone={props.tone} className={props.className} onClick={() => chooser.current?.click()}>
        {props.children}
      </Button>
    </>
  );
}
