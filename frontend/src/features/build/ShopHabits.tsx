import { useShop } from "../../api/queries";
import { Button } from "../../ui/Button";
import { PanelPlace, useOpen } from "../../ui/panelPlace";
import { Sheet } from "../../ui/Sheet";
import { RecordContext } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";

/** How this shop does it: every lamp's steps follow. */
export function ShopHabits() {
  const [open, setOpen] = useOpen("habits");
  const shop = useShop().data;
  const save = useSaveFields("/api/shop");
  return (
    <>
      <p>
        <Button onPress={() => setOpen(true)}>The shop&apos;s habits</Button>
      </p>
      <Sheet title="The shop's habits" open={open} onClose={() => setOpen(false)}>
        {shop && (
          <PanelPlace value="habits">
            <RecordContext value={{ id: "shop", shape: "shop", values: shop, save }}>
              <SavedChoice field="lead" label="A new lamp's resistor goes in the lead that is" />
              <SavedText field="sleeve_plus" label="Sleeve on plus" />
              <SavedText field="sleeve_minus" label="Sleeve on minus" />
              <SavedChoice field="spares" label="Spares to buy" />
              <SavedChoice field="work" label="Mostly works on" />
              <SavedChoice field="meter" label="Meter" />
              <SavedChoice field="series" label="A new lamp's resistor is from" />
              <SavedChoice field="learns" label="Use readings and looks of a lamp or board" />
              <SavedText field="checks" label="Checks of the house, a line each" lines />
            </RecordContext>
          </PanelPlace>
        )}
      </Sheet>
    </>
  );
}
