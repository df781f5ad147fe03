import { FieldError, Input, Label, Text, TextField, type TextFieldProps } from "react-aria-components";
import styled from "styled-components";

const Box = styled(TextField)`
  display: grid;
  gap: 3px;
  label {
    font-size: 13px;
    color: var(--second);
  }
  input {
    width: 100%;
    padding: 7px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 4px;
    background: var(--sheet);
    min-height: 38px;
  }
  input[data-invalid] {
    border-color: var(--mark);
  }
  .problem {
    font-size: 13px;
    color: var(--mark);
  }
  .help {
    font-size: 13px;
    color: var(--second);
  }
`;

interface Props extends TextFieldProps {
  label: string;
  help?: string;
  problem?: string;
  inputMode?: "numeric" | "text";
  placeholder?: string;
}

/** A labelled field with its help and its problem beside it. */
export function Field({ label, help, problem, inputMode, placeholder, ...rest }: Props) {
  return (
    <Box {...rest} isInvalid={problem ? true : rest.isInvalid}>
      <Label>{label}</Label>
      <Input inputMode={inputMode} placeholder={placeholder} />
      {help && (
        <Text slot="description" className="help">
          {help}
        </Text>
      )}
      <FieldError className="problem">{problem}</FieldError>
    </Box>
  );
}
