import { Small } from "../shared/parts";
import { holdsWords, type Share } from "./words";

const WIDTH = 470;
const FROM = 112;
const ROW = 44;

interface Props {
  /** What was promised, of 100, and the share that came true. */
  rows: { promised: number; share: Share }[];
  count: number;
  /** What they are counted in: "jobs". */
  of: string;
}

/** Do the promises hold? What was promised is a stroke, what came true a dot on the bar it may lie in. */
export function Promises({ rows, count, of }: Props) {
  const x = (share: number) => FROM + share * (WIDTH - FROM - 12);
  return (
    <>
      <svg
        viewBox={`0 0 ${WIDTH} ${rows.length * ROW}`}
        role="img"
        aria-label={rows.map(({ promised, share }) => holdsWords(promised, share, `${count} ${of}`)).join(". ")}
        style={{ display: "block", width: "100%", maxWidth: 600, height: "auto" }}
      >
        {rows.map(({ promised, share }, i) => {
          const y = i * ROW + 28;
          const { share: held, low, high } = share;
          const isOff = low !== null && high !== null && (promised / 100 < low || promised / 100 > high);
          return (
            <g key={promised}>
              <text x="0" y={y + 5} fontSize="15" fill="var(--ink)">
                {promised} of 100
              </text>
              <line x1={FROM} x2={WIDTH - 12} y1={y} y2={y} stroke="var(--rule)" strokeWidth="2" />
              {low !== null && high !== null && held !== null && (
                <>
                  <rect x={x(low)} width={Math.max(2, x(high) - x(low))} y={y - 4.5} height="9" fill="var(--strong)" />
                  <circle cx={x(held)} cy={y} r="6" fill={isOff ? "var(--mark)" : "var(--ink)"} />
                  <text x={x(held)} y={y - 11} textAnchor="middle" fontSize="13.5" fill="var(--ink)">
                    {Math.round(held * 100)}
                  </text>
                </>
              )}
              <line
                x1={x(promised / 100)}
                x2={x(promised / 100)}
                y1={y - 10}
                y2={y + 10}
                stroke="var(--ink)"
                strokeWidth="2.4"
              />
            </g>
          );
        })}
      </svg>
      <Small as="p">
        Bar: where the true share lies, as far as {count} {of} can tell. Stroke: what was promised.
      </Small>
    </>
  );
}
