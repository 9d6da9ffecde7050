import { Download } from "lucide-react";
import type { MadeFile } from "../api/client";

/** Finished files, each with a download link. */
export function Downloads({ files }: { files: MadeFile[] }) {
  return (
    <ul className="grid gap-1" aria-label="Files made">
      {files.map((file) => (
        <li key={file.url}>
          <a
            href={file.url}
            download={file.name}
            className="flex items-start gap-2 border border-rule bg-paper p-2 text-sm hover:border-ink"
          >
            <Download size={16} className="mt-0.5 shrink-0" aria-hidden="true" />
            <span className="min-w-0">
              <span className="block break-all">{file.name}</span>
              <span className="text-xs text-soft">
                {file.about}, {weight(file.bytes)}
              </span>
            </span>
          </a>
        </li>
      ))}
    </ul>
  );
}

function weight(bytes: number): string {
  return bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`;
}

/** Download a finished file, as if its link had been pressed. */
export function fetchFile(file: MadeFile) {
  const link = document.createElement("a");
  link.href = file.url;
  link.download = file.name;
  document.body.append(link);
  link.click();
  link.remove();
}
