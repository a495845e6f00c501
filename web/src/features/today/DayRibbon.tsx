import type { Schemas } from "../../api/client";
import { coatLane } from "../../ui/coatLanes";
import { Ribbon } from "../../ui/Ribbon";
import { useSettings } from "../../ui/settings";
import { weatherLanes } from "../../ui/weatherLanes";

/** The weather, and the clock and the windows of each surface, along the days. */
export function DayRibbon({ today: { answer, ribbon, place } }: { today: Schemas["Today"] }) {
  const { show } = useSettings();
  const lead = answer.lanes.find((l) => l.surfaceId === answer.surfaceId) ?? answer.lanes[0];
  const lanes = [
    ...weatherLanes(ribbon.hours, show, lead?.surface),
    ...answer.lanes.map((l) => coatLane(l, ribbon, place.timeZone, l.surfaceId === answer.surfaceId, show)),
  ];
  return <Ribbon ribbon={ribbon} zone={place.timeZone} lanes={lanes} />;
}
