import { useState } from "react";
import type { Figures, Press } from "../api/client";
import { Choice } from "../ui/Choice";
import { Pick, Plain } from "../ui/fields";
import { celsius, fahrenheit } from "../ui/measure";
import { Button, Heading } from "../ui/parts";
import type { Pressing } from "./usePress";

const SOURCES = { maker: "the maker's figures", log: "from your log", practice: "common practice" };
const PRESSURES = [
  ["light", "Light"],
  ["medium", "Medium"],
  ["firm", "Firm"],
] as const;

/** The figures of the next pressing with their source, and a form for the maker's figures. */
export function FiguresPart({ press, pressing }: { press: Press; pressing: Pressing }) {
  const [own, setOwn] = useState<Figures | null>(null);
  const { figures } = press;
  const tumbler = press.method === "tumbler";
  const rows: [string, string][] = [
    ["Temperature", `${Math.round(figures.temperature_c)} °C, ${Math.round(fahrenheit(figures.temperature_c))} °F`],
    [tumbler ? "Seam down, seam up" : "Press", `${figures.main_s} s${tumbler ? " each" : ""}`],
    ...(figures.side_s ? [["Each side", `${figures.side_s} s`] as [string, string]] : []),
    ["Pressure", figures.pressure ?? "light"],
    ["Total time under heat", `${press.total_s} s`],
  ];
  return (
    <div className="grid gap-2">
      <Heading aside={SOURCES[figures.source ?? "practice"]}>Figures</Heading>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-sm">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="text-right">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="text-xs text-soft">{figures.note}</p>
      {press.maker && press.suggested && (
        <Choice
          label="Press by"
          value={press.by}
          options={[
            { value: "maker", label: "The maker's" },
            { value: "log", label: "My log's" },
          ]}
          onChange={(by) => pressing.choose({ by })}
        />
      )}
      {press.suggested && press.by === "maker" && (
        <p className="text-sm">
          <b>Your log suggests</b> {Math.round(press.suggested.temperature_c)} °C, {press.suggested.main_s} s,{" "}
          {press.suggested.pressure}.
        </p>
      )}
      {press.why.map((why) => (
        <p key={why} className="text-sm">
          {why}
        </p>
      ))}
      {press.log.length > 0 && (
        <details className="text-xs text-soft">
          <summary className="cursor-pointer">How the log is read</summary>
          {press.rule}
        </details>
      )}
      {own ? (
        <div className="grid gap-1.5 border border-rule p-2">
          <b className="text-sm">The maker's figures for this blank</b>
          <Plain
            label="Temperature, °C"
            value={own.temperature_c}
            suffix="°C"
            least={100}
            most={232}
            onValue={(temperature_c) => setOwn({ ...own, temperature_c })}
          />
          <Plain
            label="Temperature, °F"
            value={Math.round(fahrenheit(own.temperature_c))}
            suffix="°F"
            least={212}
            most={450}
            onValue={(f) => setOwn({ ...own, temperature_c: Math.round(10 * celsius(f)) / 10 })}
          />
          <Plain
            label={tumbler ? "Seam down/up" : "Press"}
            value={own.main_s}
            suffix="s"
            least={1}
            most={900}
            onValue={(main_s) => setOwn({ ...own, main_s })}
          />
          {tumbler && (
            <>
              <Plain
                label="Each side"
                value={own.side_s}
                suffix="s"
                least={0}
                most={900}
                onValue={(side_s) => setOwn({ ...own, side_s })}
              />
              <Plain
                label="Each end"
                value={own.end_s}
                suffix="s"
                least={0}
                most={900}
                onValue={(end_s) => setOwn({ ...own, end_s })}
              />
            </>
          )}
          <Plain
            label="If pale"
            value={own.again_s}
            suffix="s"
            least={0}
            most={900}
            onValue={(again_s) => setOwn({ ...own, again_s })}
          />
          <Pick
            label="Pressure"
            value={own.pressure}
            options={PRESSURES}
            onValue={(pressure) => setOwn({ ...own, pressure })}
          />
          <input
            aria-label="Source"
            placeholder="Source: leaflet, label, page"
            className="rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
            value={own.note}
            maxLength={400}
            onChange={(event) => setOwn({ ...own, note: event.target.value })}
          />
          <div className="flex gap-2">
            <Button
              tone="main"
              onClick={() => {
                pressing.keepMaker({ ...own, source: "maker" });
                setOwn(null);
              }}
            >
              Keep
            </Button>
            <Button onClick={() => setOwn(null)}>Cancel</Button>
            {press.maker && (
              <Button
                onClick={() => {
                  pressing.keepMaker(null);
                  setOwn(null);
                }}
              >
                Remove
              </Button>
            )}
          </div>
        </div>
      ) : (
        <Button
          onClick={() => setOwn({ ...((press.maker ?? press.common) as Figures), note: press.maker?.note ?? "" })}
        >
          {press.maker ? "Change the maker's figures" : "Enter the maker's figures"}
        </Button>
      )}
    </div>
  );
}
