import { tr } from "../words/words";
import { refusedBy } from "./client";

/** Sends a file as the body of a POST, telling the share sent; throws Refused like the other calls. */
export function upload<T>(
  path: string,
  query: Record<string, string | number | boolean>,
  file: Blob,
  told?: (share: number) => void,
): Promise<T> {
  const q = new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]));
  return new Promise((resolve, reject) => {
    const r = new XMLHttpRequest();
    r.open("POST", `${path}?${q}`);
    r.setRequestHeader("Content-Type", "application/octet-stream");
    r.responseType = "json";
    r.upload.onprogress = (e) => e.lengthComputable && told?.(e.loaded / e.total);
    r.onload = () => (r.status < 300 ? resolve(r.response as T) : reject(refusedBy(r.status, r.response)));
    r.onerror = () =>
      reject(
        refusedBy(0, {
          detail: tr("The program does not answer, or the file is too large for it. Nothing was stored."),
        }),
      );
    r.send(file);
  });
}
