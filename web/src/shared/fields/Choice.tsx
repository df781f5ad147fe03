import { Button, Label, ListBox, ListBoxItem, Popover, Select, SelectValue } from "react-aria-components";
import styled from "styled-components";
import { bareStyles, fieldStyles } from "./fieldStyles";
import { listStyles } from "./listStyles";
import { Notes } from "./Notes";

const Box = styled(Select)<{ $bare?: boolean }>`
  ${fieldStyles}
  .entry {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    text-align: left;
    cursor: pointer;
    overflow: hidden;
  }
  .entry > :first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .entry[data-disabled] {
    cursor: default;
    opacity: 0.6;
  }
  ${(p) => p.$bare && bareStyles}
`;
const List = styled(Popover)`
  ${listStyles}
`;

/** What can be chosen: an id and its words. */
export interface Option {
  id: string;
  text: string;
}

interface Props {
  label: string;
  value: string | null;
  options: Option[];
  onPick: (id: string) => void;
  placeholder?: string;
  help?: string;
  problem?: string;
  bare?: boolean;
  className?: string;
  isDisabled?: boolean;
}

/** One of a few. */
export function Choice({ label, value, options, onPick, placeholder, help, problem, bare, ...rest }: Props) {
  return (
    <Box
      {...rest}
      $bare={bare}
      value={value}
      onChange={(id) => id !== null && onPick(String(id))}
      placeholder={placeholder}
      isInvalid={Boolean(problem)}
      validationBehavior="aria"
    >
      <Label>{label}</Label>
      <Button className="entry">
        <SelectValue />
        <span aria-hidden="true">▾</span>
      </Button>
      <Notes help={help} problem={problem} />
      <List>
        <ListBox items={options}>{(option) => <ListBoxItem id={option.id}>{option.text}</ListBoxItem>}</ListBox>
      </List>
    </Box>
  );
}
