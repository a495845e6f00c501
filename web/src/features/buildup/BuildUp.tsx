import { Link, useParams, useSearchParams } from "wouter";
import { useBuildUp, useStarts, useSurvey } from "../../api/queries";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { tr } from "../../words/words";
import { Editor } from "./Editor";
import { Overview } from "./Overview";

const WHOLE = "whole-boat";

export function BuildUp() {
  const { boatId = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const survey = useSurvey(boatId);
  // A boat on which nothing is planned begins with all of her.
  const starts = useStarts(boatId).data;
  const untouched = starts !== undefined && survey.data !== undefined && starts.length === survey.data.surfaces.length;
  const whole = params.get("surface") === WHOLE || (params.get("surface") === null && untouched);
  const surfaceId =
    survey.data?.surfaces.find((s) => s.id === params.get("surface"))?.id ?? survey.data?.surfaces[0]?.id ?? "";
  const build = useBuildUp(surfaceId);
  return (
    <Loaded query={survey}>
      {(s) =>
        s.surfaces.length === 0 ? (
          <Answer
            answer={tr("There is no surface to put coats on yet.")}
            detail={
              <Link className="btn btn-primary mt-2" to={`/boats/${boatId}/survey`}>
                {tr("Add one in Survey")}
              </Link>
            }
          />
        ) : (
          <>
            <Tabs
              label={tr("Surfaces")}
              tabs={[...s.surfaces.map((f) => ({ key: f.id, name: f.name })), { key: WHOLE, name: tr("Whole boat") }]}
              at={whole ? WHOLE : surfaceId}
              onChange={(id) => setParams({ surface: id }, { replace: true })}
            />
            {whole ? (
              <Overview boatId={boatId} open={(id) => setParams({ surface: id }, { replace: true })} />
            ) : (
              <Loaded query={build}>{(b) => <Editor key={surfaceId} stored={b} surfaces={s.surfaces} />}</Loaded>
            )}
          </>
        )
      }
    </Loaded>
  );
}
