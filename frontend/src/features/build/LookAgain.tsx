import { Button } from "../../ui/Button";
import { SavedDay } from "../../ui/record/SavedDay";
import { useRecord } from "../../ui/record/record";
import { inPassing } from "../../saving/useSave";
import { dayOf } from "../../ui/dates";

/** A day a month from now, as a date is kept. */
function inAMonth(): string {
  const day = new Date();
  day.setMonth(day.getMonth() + 1);
  return dayOf(day);
}

/** When to look at it again: on that day it comes back by itself, on the bench. */
export function LookAgain({ date }: { date: string }) {
  const { save } = useRecord();
  return (
    <>
      <SavedDay
        field="look_again"
        label="Look again on"
        hint="On that day it comes back on the bench"
      />
      {!date && (
        <Button onPress={() => inPassing(save({ look_again: inAMonth() }, { look_again: date }))}>
          Look again in a month
        </Button>
      )}
    </>
  );
}
