import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";

import { useCatalogue } from "../../api/queries";
import { useDraft } from "../../saving/useDraft";
import { useSave } from "../../saving/useSave";
import { MainButton } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Refusal } from "../../ui/Refusal";
import type { Pick } from "../../ui/Picker";
import LookAround from "./LookAround";

const Wrap = styled.div`
  display: grid;
  gap: 22px;
  max-width: 760px;
  padding: 18px 0 40px;
  h1 {
    font-size: 2rem;
    line-height: 1.15;
  }
`;

const Questions = styled.div`
  display: grid;
  gap: 18px;
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: center;
`;

const Big = styled(MainButton)`
  min-height: 56px;
  padding: 0 26px;
  font-size: 1.125rem;
`;

const NOT_SAID: Pick = { id: "", label: "Not said" };

const RAIL = "quick.rail";

/** The first screen of a new bench: three questions that may be left, and the demo to look around in. */
export default function FirstStart() {
  const choices = useCatalogue().data?.choices;
  const save = useSave();
  const rail = useDraft(RAIL, "");
  const [work, setWork] = useState("");
  const [meter, setMeter] = useState("yes");
  const [series, setSeries] = useState("");
  const begin = useMutation({
    mutationFn: async (said: { work: string; meter: string; series: string }) => {
      const { data } = await save("POST", "/api/first-start", said, { label: "Start my bench" });
      // What was said is used at once: the first sum begins with the supply of such lamps.
      if (said.work) rail.type((data as { rail: string }).rail);
    },
  });
  return (
    <Wrap>
      <h1>An empty bench</h1>
      <p>
        Three questions fit it to you. Leave any of them; all can be changed later under “The
        shop&apos;s habits”.
      </p>
      <Questions>
        <Choice
          label="What do you mostly work on?"
          value={work}
          options={choices?.["shop.work"] ?? []}
          onChange={setWork}
        />
        <Choice
          label="What is your meter?"
          value={meter}
          options={choices?.["shop.meter"] ?? []}
          onChange={setMeter}
        />
        <Choice
          label="Which resistors do you keep, 10 Ω to 1 MΩ?"
          value={series}
          options={[NOT_SAID, ...(choices?.["shop.series"] ?? [])]}
          onChange={setSeries}
        />
      </Questions>
      <Acts>
        <Big isDisabled={begin.isPending} onPress={() => begin.mutate({ work, meter, series })}>
          Start my bench
        </Big>
        <LookAround />
      </Acts>
      <Refusal why={begin.error?.message} />
    </Wrap>
  );
}
