import { Input, Label, TextField, type TextFieldProps } from "react-aria-components";
import styled from "styled-components";
import { fieldStyles } from "./fieldStyles";
import { Notes } from "./Notes";

const Box = styled(TextField)`
  ${fieldStyles}
`;

interface Props extends TextFieldProps {
  label: string;
  help?: string;
  problem?: string;
  placeholder?: string;
}

/**
 * A line of text with its name, its help and its problem. Figures have fields of their own. What the server found wrong
 * is said and does not keep the form from being sent again.
 */
export function Field({ label, help, problem, placeholder, ...rest }: Props) {
  return (
    <Box
      {...rest}
      isInvalid={problem ? true : rest.isInvalid}
      validationBehavior={problem ? "aria" : rest.validationBehavior}
    >
      <Label>{label}</Label>
      <Input placeholder={placeholder} />
      <Notes help={help} problem={problem} />
    </Box>
  );
}
