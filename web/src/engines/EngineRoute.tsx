import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { api, type EngineWithProfile } from "../api/client";
import { DescentDrawing } from "../quote/drawing/DescentDrawing";
import { ReachDrawing } from "../quote/drawing/ReachDrawing";
import { WORKS } from "../quote/scopes/works";
import { learnedFrom } from "../quote/words";
import { Chip } from "../shared/Chip";
import { list } from "../shared/format";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Loaded } from "../shared/Loaded";
import { BookPage, Button, Heading, KeyHint, LoneLink, Mono, Notice, Part, Small, Strong } from "../shared/parts";
import { Cautions, PlugFacts, Soundings, Steps, Table } from "./EngineTables";

const Top = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 440px) minmax(0, 1fr);
  gap: 12px 36px;
  align-items: start;
  margin-top: 14px;
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Works = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px 0;
`;
/**
 * One engine of the library: the drawing, the hours of every kind of work, what comes off with what, parts and
 * cautions.
 */
export function EngineRoute() {
  const { code = "" } = useParams();
  const [query] = useSearchParams();
  const revision = query.get("revision") ?? undefined;
  const [work, setWork] = useState("plug");
  const engine = useQuery({
    queryKey: ["engine", code, work, revision],
    queryFn: () => api.engine(code, work, revision),
    placeholderData: keepPreviousData,
  });
  return (
    <Loaded query={engine} opening="Opening the engine…" back="/engines" backWords="Back to the library">
      {(data) => <EnginePage engine={data} work={work} onWork={setWork} stale={engine.isFetching} />}
    </Loaded>
  );
}

interface Props {
  engine: EngineWithProfile;
  work: string;
  onWork: (work: string) => void;
  stale: boolean;
}

function EnginePage({ engine, work, onWork, stale }: Props) {
  const { page } = engine;
  const profile = engine.profile;
  const [active, setActive] = useState<string | null>(null);
  const [told, setTold] = useState("");
  const light = (ref: string | null, label?: string) => {
    setActive(ref);
    setTold(label ?? "");
  };
  const lifted = page.layers.filter((layer) => layer.step === active).map((layer) => layer.number);
  const { account, format } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const open = useMutation({
    mutationFn: () => api.beginDraft({ code: engine.code }, crypto.randomUUID()),
    onSuccess: (draft) => {
      queries.setQueryData(["workshop", draft.code], draft);
      void navigate(`/workshop/${encodeURIComponent(draft.code)}`);
    },
  });
  useKeys(account.role === "technician" ? [] : [{ key: "e", hint: "E", label: "Change it", run: () => open.mutate() }]);
  const shown = engine.revision;
  const newest = engine.revisions[0]?.revision ?? shown;

  return (
    <BookPage>
      <header>
        <div>
          <Small>
            <Link to="/engines">Engines</Link>
          </Small>
          <h1>
            <Mono>{engine.code}</Mono> {engine.name}
          </h1>
        </div>
        <div style={{ textAlign: "right" }}>
          <Small>
            {engine.revisions.map((row) => (
              <span key={row.revision}>
                {row.revision === shown ? (
                  <Strong>revision {row.revision}</Strong>
                ) : (
                  <Link to={`?revision=${row.revision}`}>revision {row.revision}</Link>
                )}
                , {format.day(row.created_at.slice(0, 10))}
                {row.by ? `, ${row.by}` : ""}
                {row.why ? `: ${row.why}` : ""}
                <br />
              </span>
            ))}
          </Small>
          {engine.revisions.length > 1 && (
            <>
              <Link to={comparison(engine.code, shown)}>Compare</Link>
              {" · "}
            </>
          )}
          <LoneLink href={`/api/engines/${encodeURIComponent(engine.code)}/export?revision=${shown}`} download>
            Export the profile
          </LoneLink>
        </div>
      </header>
      {account.role !== "technician" && (
        <p style={{ display: "flex", gap: 12, alignItems: "center", margin: "12px 0 0" }}>
          <Button onPress={() => open.mutate()} isPending={open.isPending}>
            {engine.provisional ? "Draw it properly" : "Change it"} <KeyHint>E</KeyHint>
          </Button>
          {engine.provisional && <Strong>Provisional: only sketched, its hours are wider.</Strong>}
          {open.error && <Small role="alert">{open.error.message}</Small>}
        </p>
      )}
      {shown < newest && (
        <Notice>
          <p>
            This is revision {shown}; the newest is {newest}. Quotes made with this one keep it.
          </p>
        </Notice>
      )}
      <p style={{ maxWidth: "78ch", margin: "12px 0 0" }}>{engine.notes}</p>
      <Top>
        <div>
          <Heading>
            <span>What lies over each cylinder</span>
            <Small>hours alone</Small>
          </Heading>
          <ReachDrawing reach={page.reach} chosen={[]} stale={stale} lifted={lifted} />
          <Works role="group" aria-label="Kind of work drawn">
            {page.works.map((row) => (
              <Chip key={row.work} isSelected={row.work === work} onChange={() => onWork(row.work)}>
                {WORKS[row.work as keyof typeof WORKS].label}
              </Chip>
            ))}
          </Works>
          {engine.learned && (
            <Small as="p">
              Hours here are the profile&rsquo;s. Quotes are corrected: {learnedFrom(engine.learned).toLowerCase()}.
            </Small>
          )}
        </div>
        <div>
          {page.descent && (
            <>
              <Heading>
                <span>The deepest: number {page.deepest}</span>
                <Small>minutes to scale</Small>
              </Heading>
              <DescentDrawing descent={page.descent} active={active} onActive={light} height={170} />
              <Small as="p" aria-live="polite" style={{ minHeight: 21 }}>
                {told}
              </Small>
            </>
          )}
          <Soundings page={page} />
        </div>
      </Top>
      <Heading style={{ marginTop: 18 }}>
        <span>What comes off</span>
        <Small>minutes low / likely / high</Small>
      </Heading>
      <Steps profile={profile} page={page} active={active} onActive={light} />
      <Top>
        <div>
          <Heading>The plug</Heading>
          <PlugFacts profile={profile} equipment={page.equipment} />
          <Heading>Cautions at the work</Heading>
          <Cautions profile={profile} />
        </div>
        <div>
          <Heading>Parts it names</Heading>
          <Table>
            <tbody>
              {page.parts.map((row) => (
                <tr key={row.part}>
                  <td>
                    {row.label || "Not on the price list"} <Part>{row.part}</Part>
                    <Small>
                      {row.for.length > 4
                        ? `${row.for.slice(0, 3).join(", ")} and ${row.for.length - 3} more`
                        : list(row.for)}
                    </Small>
                  </td>
                  <td className="figure">{row.priced ? "" : "no price"}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </div>
      </Top>
      <p>
        <Small>
          Times and torques are examples. The maker's service information, local rules and a licensed technician's
          judgment come first.
        </Small>
      </p>
    </BookPage>
  );
}

/** A revision beside the one before it. */
function comparison(code: string, revision: number): string {
  const before = Math.max(1, revision - 1);
  const query = { a: code, a_revision: String(before), b: code, b_revision: String(revision) };
  return `/compare?${new URLSearchParams(query).toString()}`;
}
