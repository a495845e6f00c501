/** A half-drawn midship section of each hull form, from bow or stern, keel down: what tells them apart at a glance. */
const SECTIONS: Record<string, string> = {
  "full-motor": "M6 12 L8 26 Q10 33 22 35 L40 38 L58 35 Q70 33 72 26 L74 12",
  medium: "M8 10 Q10 26 24 32 Q35 35 38 46 L42 46 Q45 35 56 32 Q70 26 72 10",
  "fin-keel": "M6 12 Q8 24 26 28 L38 29 L38.5 47 L41.5 47 L42 29 L54 28 Q72 24 74 12",
  "open-chine": "M8 18 L18 34 L62 34 L72 18",
  catamaran: "M4 16 L6 30 Q8 40 14 40 Q20 40 22 30 L24 20 L56 20 L58 30 Q60 40 66 40 Q72 40 74 30 L76 16",
  trimaran:
    "M2 20 L4 30 Q6 35 10 35 Q14 35 15 30 L28 20 L30 32 Q33 42 40 42 Q47 42 50 32 L52 20 L65 30 Q66 35 70 35 Q74 35 76 30 L78 20",
};

/** The hull form as one sees it end on, with the water. */
export function HullSection({ form }: { form: string }) {
  return (
    <svg viewBox="0 0 80 52" className="h-12 w-full" aria-hidden="true">
      <path d={SECTIONS[form] ?? ""} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="round" />
      <path d="M0 26 H80" stroke="var(--dew)" strokeWidth={1} strokeDasharray="3 3" />
    </svg>
  );
}
