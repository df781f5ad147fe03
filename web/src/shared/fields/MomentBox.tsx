import { parseDateTime } from "@internationalized/date";
import { DateField, DateInput, DateSegment, type DateValue, Label } from "react-aria-components";
import styled from "styled-components";
import { fieldStyles } from "./fieldStyles";
import { Notes } from "./Notes";
import { segmentStyles } from "./segmentStyles";

const Box = styled(DateField)`
  ${fieldStyles}
  ${segmentStyles}
`;

interface Props {
  label: string;
  /** A moment of the shop's wall clock: "2026-11-24T15:30". */
  value: string | null;
  onMoment: (value: string | null) => void;
  help?: string;
  isDisabled?: boolean;
}

/** A day and a time, written as the shop writes them; empty is null. */
export function MomentBox({ label, value, onMoment, help, isDisabled }: Props) {
  const moment = value ? parseDateTime(value) : null;
  const say = (next: DateValue | null) => onMoment(next && next.toString().slice(0, 16));
  return (
    <Box value={moment} onChange={say} granularity="minute" isDisabled={isDisabled} hideTimeZone>
      <Label>{label}</Label>
      <DateInput className="entry">{(segment) => <DateSegment segment={segment} />}</DateInput>
      <Notes help={help} />
    </Box>
  );
}
