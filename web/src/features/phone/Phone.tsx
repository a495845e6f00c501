import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, usePhones } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { Remove } from "../../ui/Remove";
import { clock, stamp } from "../../ui/time";
import { tr, trNodes } from "../../words/words";

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** How a phone at the boat comes to the program on this computer. */
export function Phone() {
  return <Loaded query={usePhones()}>{(p) => (p.open ? <Open phones={p} /> : <Closed />)}</Loaded>;
}

function Closed() {
  return (
    <Answer
      answer={tr("No phone can come in yet: the program listens to this computer alone.")}
      detail={trNodes(
        "Stop it and start it again with {code}, such as {code2} or {code3}. Then this page shows what to scan.",
        {
          code: <code>{"--yard"}</code>,
          code2: <code>{"allcoats serve --yard"}</code>,
          code3: <code>{"allcoats demo --yard"}</code>,
        },
      )}
    />
  );
}

function Open({ phones }: { phones: Schemas["Phones"] }) {
  const code = useChange([], () => ok(api.POST("/api/phones/code")));
  const [plain, setPlain] = useState(false);
  const ways = (code.data?.ways ?? []).filter((w) => w.secure !== plain);
  return (
    <>
      <Answer
        answer={
          phones.ways.length === 0
            ? tr("This computer is in no network: join the yard’s, or open a hotspot with the phone.")
            : phones.devices.length === 0
              ? tr("No phone is paired yet: install the certificate once, then scan a code.")
              : tr("{devices, plural, one {One phone is} other {{devices} phones are}} paired.", {
                  devices: phones.devices.length,
                })
        }
        detail={tr(
          "Phone and computer must be in the same network. What is written at the boat without a signal waits on the phone, and is sent when it is back.",
        )}
      />
      {phones.ways.length > 0 && (
        <div className="grid max-w-4xl gap-8 md:grid-cols-2">
          <section>
            <h2 className="text-lg">{tr("1. Once: the certificate")}</h2>
            <p className="text-sm">
              {tr(
                "So that the phone talks to this computer encrypted, opens without a signal, and may use its camera. Scan this, install what comes, and trust it.",
              )}
            </p>
            <Scan way={phones.certificate} what={tr("the certificate")} />
            <p className="text-sm">
              {trNodes(
                "Its fingerprint begins {fingerprint}. It holds for this computer in private networks and for nothing else.",
                {
                  fingerprint: <b className="whitespace-nowrap">{phones.fingerprint}</b>,
                },
              )}
            </p>
            <details className="mt-2 text-sm">
              <summary className="linked min-h-11 w-fit">{tr("Where phones keep it")}</summary>
              <p>
                {tr(
                  "Phones that load it as a profile: Settings, Profile loaded, Install; then Settings, General, About, Certificate trust, and switch it on. Others: Settings, Security, Encryption and credentials, Install a certificate, CA certificate, and choose the file.",
                )}
              </p>
            </details>
          </section>
          <section>
            <h2 className="text-lg">{tr("2. For each phone: a code")}</h2>
            <p className="text-sm">{tr("It lets one phone in, within ten minutes, without a passphrase to type.")}</p>
            {!code.data && (
              <button
                type="button"
                className="btn btn-primary mt-2 min-h-12"
                disabled={code.isPending}
                onClick={() => code.mutate(undefined)}
              >
                {tr("Show a code")}
              </button>
            )}
            <Refusal error={code.error} />
            {code.data && (
              <>
                {ways.slice(0, 1).map((w) => (
                  <Scan key={w.url} way={w} what={tr("the code")} />
                ))}
                <p className="text-sm">
                  {trNodes("Or type {b} there, until {until}.", {
                    b: (
                      <b className="text-lg whitespace-nowrap" data-testid="code">
                        {code.data.code.slice(0, 4)} {code.data.code.slice(4)}
                      </b>
                    ),
                    until: clock(code.data.until, HERE),
                  })}
                </p>
                {ways.length > 1 && (
                  <p className="quiet text-sm">
                    {tr("If that is not reached:")}{" "}
                    {ways
                      .slice(1)
                      .map((w) => new URL(w.url).origin)
                      .join(", ")}
                    .
                  </p>
                )}
                <button type="button" className="linked mt-2 min-h-11 text-sm" onClick={() => setPlain(!plain)}>
                  {plain ? tr("Encrypted, with the certificate") : tr("Without the certificate, over plain http")}
                </button>
                {plain && (
                  <p className="border-l-4 border-error pl-3 text-sm">
                    {tr(
                      "Over plain http everything works but what browsers keep for encrypted pages: it does not open without a signal, and the camera reads no codes. Anybody in the same network can read along.",
                    )}
                  </p>
                )}
              </>
            )}
          </section>
        </div>
      )}
      {phones.devices.length > 0 && (
        <section className="mt-8 max-w-xl" data-testid="devices">
          <h2 className="text-lg">{tr("Paired")}</h2>
          <ul>
            {phones.devices.map((d) => (
              <li key={d.id} className="rule-b flex flex-wrap items-center justify-between gap-3 py-2">
                <span>
                  <b>{d.name}</b>{" "}
                  <span className="quiet">{tr("since {pairedAt}", { pairedAt: stamp(d.pairedAt, HERE) })}</span>
                </span>
                <Remove
                  of={["phones"]}
                  what={tr("the pairing of {name}", { name: d.name })}
                  label={tr("shut it out")}
                  remove={() => ok(api.DELETE("/api/phones/{id}", { params: { path: { id: d.id } } }))}
                  done={() => {}}
                />
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function Scan({ way, what }: { way: Schemas["PhoneWay"]; what: string }) {
  return (
    <figure className="my-2">
      <img
        src={way.qr}
        alt={tr("To be scanned for {what}", { what })}
        width={240}
        height={240}
        className="border border-base-300 bg-white"
      />
      <figcaption className="break-all text-sm">{way.url}</figcaption>
    </figure>
  );
}
