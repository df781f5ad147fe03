import { parseTime } from "@internationalized/date";
import { DateInput, DateSegment, Label, TimeField } from "react-aria-components";
import styled from "styled-components";
import { bareStyles, fieldStyles } from "./fieldStyles";
import { segmentStyles } from "./segmentStyles";

const Box = styled(TimeField)`
  ${fieldStyles}
  ${segmentStyles}
  ${bareStyles}
`;

interface Props {
  label: string;
  /** "08:00", or "" where nothing is entered. */
  value: string;
  onTime: (value: string) => void;
}

/** A time of day, written as the shop writes it. */
export function TimeBox({ label, value, onTime }: Props) {
  return (
    <Box
      value={value ? parseTime(value) : null}
      onChange={(time) => onTime(time ? time.toString().slice(0, 5) : "")}
      granularity="minute"
    >
      <Label>{label}</Label>
      <DateInput className="entry">{(segment) => <DateSegment segment={segment} />}</DateInput>
    </Box>
  );
}
