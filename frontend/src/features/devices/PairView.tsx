import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import { client, Refused, unwrap } from "../../api/client";
import { useMe } from "../../api/queries";
import { notePaired } from "../../saving/paired";
import { MainButton } from "../../ui/Button";
import { Field } from "../../ui/Field";

const Wrap = styled.main`
  display: grid;
  gap: 16px;
  max-width: 460px;
  margin: 0 auto;
  padding: 24px 16px 60px;
  h1 {
    font-size: 1.7rem;
  }
`;

const Form = styled.form`
  display: grid;
  gap: 12px;
`;

const Digits = styled(Field)`
  input {
    min-height: 64px;
    font: 650 2.2rem var(--mono);
    letter-spacing: 0.18em;
  }
`;

/** On the phone: the six digits of the bench's screen, and a name. Whoever has both the code and the digits is let in. */
export default function PairView() {
  const ticket = location.hash.slice(1);
  const [digits, setDigits] = useState("");
  const [name, setName] = useState("Phone");
  const queries = useQueryClient();
  const me = useMe().data;
  const pair = useMutation({
    mutationFn: () =>
      unwrap(client.POST("/api/pair", { body: { ticket, digits: digits.trim(), name } })),
    onSuccess: () => {
      notePaired(200);
      void queries.resetQueries();
    },
  });
  if (pair.data) {
    return (
      <Wrap>
        <h1>Paired</h1>
        <p role="status">
          The bench knows this phone as “{pair.data.device}”.
          {!pair.data.may_write && " It looks, and changes nothing."}
        </p>
        <p>To have it at hand, choose “Add to home screen” in the browser&apos;s menu.</p>
        <Link to="/">Go to the bench</Link>
      </Wrap>
    );
  }
  const problem = pair.error;
  const over = problem instanceof Refused && problem.status === 410;
  return (
    <Wrap>
      <h1>Pair this phone with the bench</h1>
      {me?.paired && (
        <p>
          It is paired already, as “{me.device}”. <Link to="/">Go to the bench</Link>
        </p>
      )}
      {ticket === "" || over ? (
        <p role="alert">
          {over
            ? problem.message
            : "Press “Add a phone” at the bench, and scan the code that it shows with this phone."}
        </p>
      ) : (
        <Form
          onSubmit={(e) => {
            e.preventDefault();
            if (!pair.isPending) pair.mutate();
          }}
        >
          <Digits
            label="Six digits on the bench's screen"
            value={digits}
            onChange={setDigits}
            placeholder="000000"
            error={problem?.message}
          />
          <Field
            label="What this phone is called"
            value={name}
            onChange={setName}
            hint="such as Phone beside the vice"
            words
          />
          <MainButton type="submit" isDisabled={digits.trim() === ""}>
            {pair.isPending ? "Pairing" : "Pair"}
          </MainButton>
        </Form>
      )}
      {location.protocol === "https:" && (
        <p>
          The browser did not know the certificate, because the bench made it itself. Compare the
          fingerprint that the browser shows with the one on the bench&apos;s screen.
        </p>
      )}
    </Wrap>
  );
}
