import { ComboBox, Input, Label, ListBox, ListBoxItem, Popover } from "react-aria-components";
import styled from "styled-components";
import { fieldStyles } from "./fieldStyles";
import { listStyles } from "./listStyles";
import { Notes } from "./Notes";

const Box = styled(ComboBox)`
  ${fieldStyles}
`;
const List = styled(Popover)`
  ${listStyles}
  .none {
    padding: 6px 12px;
    color: var(--second);
  }
`;

/** What can be found: its id, what it is called, what else is said of it, and every word it is found by. */
export interface Found {
  id: string;
  text: string;
  more: string;
  words: string;
}

interface Props {
  label: string;
  value: string | null;
  items: Found[];
  onPick: (id: string | null) => void;
  placeholder?: string;
  none: string;
  help?: string;
  problem?: string;
  className?: string;
  isRequired?: boolean;
}

/** One of many, found by any of its words. */
export function Pick({ label, value, items, onPick, placeholder, none, help, problem, ...rest }: Props) {
  const found = new Map(items.map((item) => [item.text, item.words.toLowerCase()]));
  const fits = (text: string, typed: string) =>
    typed
      .toLowerCase()
      .split(/[\s,]+/)
      .every((word) => (found.get(text) ?? text.toLowerCase()).includes(word));
  return (
    <Box
      {...rest}
      value={value}
      onChange={(id) => onPick(id === null ? null : String(id))}
      defaultItems={items}
      defaultFilter={fits}
      allowsEmptyCollection
      menuTrigger="focus"
      isInvalid={Boolean(problem)}
      validationBehavior="aria"
    >
      <Label>{label}</Label>
      <Input placeholder={placeholder} />
      <Notes help={help} problem={problem} />
      <List>
        <ListBox<Found> renderEmptyState={() => <div className="none">{none}</div>}>
          {(item) => (
            <ListBoxItem id={item.id} textValue={item.text}>
              {item.text}
              <small>{item.more}</small>
            </ListBoxItem>
          )}
        </ListBox>
      </List>
    </Box>
  );
}
