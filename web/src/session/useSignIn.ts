import { type FormEvent, useState } from "react";

/** What a sign-in form holds: address, password, what went wrong, whether it is under way. */
export interface SigningIn {
  email: string;
  setEmail: (email: string) => void;
  password: string;
  setPassword: (password: string) => void;
  problem: string;
  busy: boolean;
  submit: (event: FormEvent) => Promise<void>;
}

/**
 * A sign-in form, without its looks.
 * @param known the address somebody signed in with before
 * @param signIn signs in and goes on; what it throws is said in the form
 */
export function useSignIn(signIn: (email: string, password: string) => Promise<void>, known = ""): SigningIn {
  const [email, setEmail] = useState(known);
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      await signIn(email, password);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : "Signing in failed. Try again.");
      setBusy(false);
    }
  };
  return { email, setEmail, password, setPassword, problem, busy, submit };
}
