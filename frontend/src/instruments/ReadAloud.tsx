import { useEffect, useState } from "react";

import { SmallButton } from "../ui/Button";

/** Whether this browser can speak. */
const speech = (): SpeechSynthesis | undefined =>
  typeof speechSynthesis === "undefined" ? undefined : speechSynthesis;

interface Props {
  /** What is said; each with a pause after it. */
  text: readonly string[];
  /** What it is of, for whoever hears the button. */
  of: string;
}

/** Said by the device's own voice, while both hands hold probes; pressed again it is quiet. */
export function ReadAloud({ text, of }: Props) {
  const [speaking, setSpeaking] = useState(false);
  const said = text.filter(Boolean).join(". ");
  // What is not shown any more is not spoken on.
  useEffect(() => () => speech()?.cancel(), [said]);
  const voice = speech();
  if (!voice || said === "") return null;
  const press = () => {
    voice.cancel();
    if (speaking) return setSpeaking(false);
    const words = new SpeechSynthesisUtterance(spoken(said));
    words.lang = "en-GB";
    words.onend = words.onerror = () => setSpeaking(false);
    voice.speak(words);
    setSpeaking(true);
  };
  return (
    <SmallButton
      data-print="no"
      aria-pressed={speaking}
      aria-label={speaking ? "Stop reading aloud" : `Read aloud: ${of}`}
      onPress={press}
    >
      {speaking ? "Stop" : "Read aloud"}
    </SmallButton>
  );
}

/** Units as they are said: a voice spells "mA" and drops "Ω". */
const SAID: readonly (readonly [RegExp, string])[] = [
  [/[\s\u00a0\u202f]*m\u03a9/g, " milliohms"],
  [/[\s\u00a0\u202f]*k\u03a9/g, " kilohms"],
  [/[\s\u00a0\u202f]*M\u03a9/g, " megohms"],
  [/[\s\u00a0\u202f]*\u03a9/g, " ohms"],
  [/(\d)[\s\u00a0\u202f]*\u00b5A\b/g, "$1 microamps"],
  [/(\d)[\s\u00a0\u202f]*mA\b/g, "$1 milliamps"],
  [/(\d)[\s\u00a0\u202f]*A\b/g, "$1 amps"],
  [/(\d)[\s\u00a0\u202f]*mV\b/g, "$1 millivolts"],
  [/(\d)[\s\u00a0\u202f]*V\b/g, "$1 volts"],
  [/(\d)[\s\u00a0\u202f]*mW\b/g, "$1 milliwatts"],
  [/(\d)[\s\u00a0\u202f]*W\b/g, "$1 watts"],
  [/(\d)[\s\u00a0\u202f]*\u00b0C/g, "$1 degrees"],
  [/\u00d7/g, "times"],
  [/\u2212(\d)/g, "minus $1"],
];

/** A text as it is spoken. */
export const spoken = (text: string): string =>
  SAID.reduce((words, [sign, word]) => words.replace(sign, word), text);
