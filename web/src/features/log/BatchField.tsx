import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useLog } from "../../api/queries";
import { TextField } from "../../ui/Form";
import { tr } from "../../words/words";

type Found = { rawValue: string };
type Detector = new () => { detect: (v: HTMLVideoElement) => Promise<Found[]> };

/** What reads codes in this browser; nothing where it does not, or over plain http. */
const detector = () =>
  window.isSecureContext ? (globalThis as { BarcodeDetector?: Detector }).BarcodeDetector : undefined;

/** The batch on the tin: typed once, taken again for the same tin by a tap, read by the camera where the browser can. */
export function BatchField({
  boatId,
  productId,
  batch,
  set,
}: {
  boatId: string;
  productId: string;
  batch: string;
  set: (batch: string) => void;
}) {
  const [reading, setReading] = useState(false);
  const log: Schemas["Entry"][] = useLog(boatId).data ?? [];
  const last = log.find((e) => e.productId === productId && e.batch)?.batch ?? "";
  return (
    <div>
      <TextField name="batch" label={tr("Batch on the tin")} value={batch} onChange={set} />
      <div className="mt-1 flex flex-wrap gap-2">
        {last !== "" && last !== batch && (
          <button type="button" className="btn min-h-11" onClick={() => set(last)}>
            {tr("Same tin: {last}", { last })}
          </button>
        )}
        {detector() && !reading && (
          <button type="button" className="btn min-h-11" onClick={() => setReading(true)}>
            {tr("Read it by camera")}
          </button>
        )}
      </div>
      {reading && (
        <Camera
          found={(text) => {
            set(text);
            setReading(false);
          }}
          stop={() => setReading(false)}
        />
      )}
    </div>
  );
}

const LOOK_MS = 300;

function Camera({ found, stop }: { found: (text: string) => void; stop: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [wrong, setWrong] = useState("");
  const told = useRef(found);
  told.current = found;
  useEffect(() => {
    const Reader = detector();
    let stream: MediaStream | undefined;
    let timer = 0;
    let gone = false;
    (async () => {
      try {
        if (!Reader || !video.current) return;
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
        if (gone) return;
        video.current.srcObject = stream;
        await video.current.play();
        const reader = new Reader();
        timer = window.setInterval(async () => {
          const codes = video.current ? await reader.detect(video.current).catch(() => []) : [];
          if (codes[0]?.rawValue) told.current(codes[0].rawValue);
        }, LOOK_MS);
      } catch {
        setWrong(tr("The camera is not let in, or there is none: type it."));
      }
    })();
    return () => {
      gone = true;
      clearInterval(timer);
      for (const t of stream?.getTracks() ?? []) t.stop();
    };
  }, []);
  return (
    <div className="mt-2">
      {wrong ? (
        <p role="alert" className="text-sm text-error">
          {wrong}
        </p>
      ) : (
        <video ref={video} className="max-h-56 w-full bg-base-300" playsInline muted />
      )}
      <button type="button" className="btn btn-ghost min-h-11" onClick={stop}>
        {tr("Close the camera")}
      </button>
    </div>
  );
}
