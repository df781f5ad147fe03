import { FieldError, Text } from "react-aria-components";

/** What helps with a field, and what is wrong with it. */
export function Notes({ help, problem }: { help?: string; problem?: string }) {
  return (
    <>
      {help && (
        <Text slot="description" className="help">
          {help}
        </Text>
      )}
      <FieldError className="problem">{problem}</FieldError>
    </>
  );
}
