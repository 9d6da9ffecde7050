import { address, data, done, server, upload } from "./http";
import { ofPair, onPanel, PAIR } from "./places";
import type { BatchBody, Figures, FileNames, Gang, LogEntryBody, Machine, Place, Pressed, Printing } from "./types";

/** Print files, gang sheets and pressings, and the jobs and batches that make files. */
export const production = {
  fileNames: () => data(server.GET("/api/batches/names")),
  putFileNames: (body: FileNames) => data(server.PUT("/api/batches/names", { body })),
  printing: (place: Place) => data(server.GET(`${PAIR}/printing`, onPanel(place))),
  setPrinting: (place: Place, body: Printing, based_on?: string) =>
    data(server.PUT(`${PAIR}/printing`, { ...onPanel(place, { based_on }), body })),
  print: (place: Place, sides: "this" | "all") =>
    data(server.POST(`${PAIR}/print-job`, { ...onPanel(place), body: { sides } })),
  softProof: (place: Place, intent: Printing["intent"], paper: boolean) =>
    address(`${PAIR}/soft-proof`, onPanel(place, { intent, paper }).params),

  jobs: async (place: Place) => (await data(server.GET(`${PAIR}/jobs`, ofPair(place)))).jobs,
  stopJob: (id: number) => data(server.POST("/api/jobs/{job_id}/stop", { params: { path: { job_id: id } } })),
  batches: () => data(server.GET("/api/batches")),
  beginBatch: (body: BatchBody) => data(server.POST("/api/batches", { body })),
  steerBatch: (id: number, how: "pause" | "resume" | "stop" | "again") =>
    data(server.POST(`/api/batches/{batch_id}/${how}`, { params: { path: { batch_id: id } } })),
  dismissBatch: (id: number) => data(server.DELETE("/api/batches/{batch_id}", { params: { path: { batch_id: id } } })),

  press: (place: Place, chosen: Pressed) => data(server.GET(`${PAIR}/press`, onPanel(place, chosen))),
  keepMaker: (place: Place, chosen: Pressed, figures: Figures | null) =>
    data(server.PUT(`${PAIR}/press/maker`, { ...onPanel(place, chosen), body: { figures } })),
  keepPress: (place: Place, chosen: Pressed, body: Machine) =>
    data(server.PUT(`${PAIR}/press/machine`, { ...onPanel(place, chosen), body })),
  logPressing: (place: Place, chosen: Pressed, body: LogEntryBody) =>
    data(server.POST(`${PAIR}/press/log`, { ...onPanel(place, chosen), body })),
  pressingPhoto: (id: number) => address("/api/pressings/{pressing_id}/photo", { path: { pressing_id: id } }),
  keepPressingPhoto: (id: number, file: File) =>
    done(
      server.PUT("/api/pressings/{pressing_id}/photo", {
        params: { path: { pressing_id: id } },
        body: upload(file),
      }),
    ),
  removePressing: (id: number) =>
    done(server.DELETE("/api/pressings/{pressing_id}", { params: { path: { pressing_id: id } } })),
  ticket: (place: Place) => address(`${PAIR}/ticket`, ofPair(place).params),

  printer: () => data(server.GET("/api/simulated-printer")),
  tendPrinter: (action: "refill" | "clear" | "jam") =>
    data(server.POST("/api/simulated-printer/{action}", { params: { path: { action } } })),
  queue: (url: string, copies: number) => data(server.POST("/api/simulated-printer/queue", { body: { url, copies } })),
  uploadToProvider: (place: Place, url: string) =>
    data(server.POST(`${PAIR}/simulated-upload`, { ...onPanel(place), body: { url, copies: 1 } })),

  gang: () => data(server.GET("/api/gang")),
  setGang: (body: Gang, based_on?: string) => data(server.PUT("/api/gang", { params: { query: { based_on } }, body })),
  makeGang: () => data(server.POST("/api/gang/job")),
};
