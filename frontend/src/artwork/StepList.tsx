import { ArrowDown, ArrowUp, ChevronRight, Plus, X } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { Step } from "../api/client";
import { Button, IconButton } from "../ui/parts";
import { StepFields } from "./StepFields";
import type { Preparing } from "./usePreparation";

/** The steps in order. Each can be switched off, moved, changed and removed at any time. */
export function StepList({ preparing }: { preparing: Preparing }) {
  const { steps, kinds, selected } = preparing;
  const moved = (from: number, by: number) => {
    const next = [...steps];
    const [step] = next.splice(from, 1);
    next.splice(from + by, 0, step as Step);
    preparing.select(from + by);
    preparing.decide(next);
  };
  return (
    <div>
      <ol className="border-t border-rule">
        {steps.map((step, i) => {
          const title = kinds[step.kind]?.title ?? step.kind;
          const open = selected === i;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a step is identified by its position
            <li key={i} className={`border-b border-rule ${open ? "bg-paper px-2" : ""}`}>
              <div className="flex min-h-8 items-center gap-1.5">
                <input
                  type="checkbox"
                  aria-label={`${title} is on`}
                  checked={step.on}
                  onChange={() =>
                    preparing.decide(steps.map((other, j) => (i === j ? { ...step, on: !step.on } : other)))
                  }
                />
                <button
                  type="button"
                  aria-expanded={open}
                  onClick={() => preparing.select(open ? null : i)}
                  className={`flex grow items-center gap-1 py-1 text-left ${step.on ? "" : "text-soft line-through"} ${open ? "font-bold" : ""}`}
                >
                  <ChevronRight size={13} aria-hidden="true" className={open ? "rotate-90" : ""} />
                  {i + 1} {title}
                </button>
                {open && (
                  <>
                    <IconButton label={`Move ${title} up`} off={i === 0} onClick={() => moved(i, -1)}>
                      <ArrowUp size={14} aria-hidden="true" />
                    </IconButton>
                    <IconButton label={`Move ${title} down`} off={i === steps.length - 1} onClick={() => moved(i, 1)}>
                      <ArrowDown size={14} aria-hidden="true" />
                    </IconButton>
                    <IconButton
                      label={`Remove ${title}`}
                      onClick={() => {
                        preparing.select(null);
                        preparing.decide(steps.filter((_, j) => i !== j));
                      }}
                    >
                      <X size={14} aria-hidden="true" />
                    </IconButton>
                  </>
                )}
              </div>
              {open && <StepFields preparing={preparing} index={i} />}
            </li>
          );
        })}
      </ol>
      {steps.length === 0 && <p className="py-2 text-sm text-soft">Artwork as imported: no steps yet.</p>}
      <AddStep preparing={preparing} />
    </div>
  );
}

function AddStep({ preparing }: { preparing: Preparing }) {
  const { steps, kinds } = preparing;
  const add = (kind: string) => {
    preparing.select(steps.length);
    preparing.decide([...steps, { kind, values: {}, on: true }]);
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button className="mt-2 w-full">
          <Plus size={15} aria-hidden="true" /> Add a step
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-20 max-h-[70vh] w-[22rem] overflow-y-auto border border-ink bg-paper py-1"
        >
          {Object.values(kinds).map((kind) => (
            <DropdownMenu.Item
              key={kind.id}
              onSelect={() => add(kind.id)}
              className="cursor-pointer px-3 py-1 outline-none data-highlighted:bg-accent-tint"
            >
              <span className="block font-bold">{kind.title}</span>
              <span className="block text-xs leading-tight text-soft">{kind.says}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
