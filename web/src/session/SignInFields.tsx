import { Field } from "../shared/fields/Field";
import type { SigningIn } from "./useSignIn";

/** Address and password. */
export function SignInFields({ form, autoFocus }: { form: SigningIn; autoFocus?: boolean }) {
  return (
    <>
      <Field
        label="E-mail"
        type="email"
        value={form.email}
        onChange={form.setEmail}
        isRequired
        autoComplete="username"
        autoFocus={autoFocus}
      />
      <Field
        label="Password"
        type="password"
        value={form.password}
        onChange={form.setPassword}
        isRequired
        autoComplete="current-password"
      />
    </>
  );
}
