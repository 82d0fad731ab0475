import { useMutation } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import { useNavigate } from "react-router";

import { upload } from "../../api/upload";
import { Button } from "../../ui/Button";
import { Refusal } from "../../ui/Refusal";

/** Open a lamp by a photograph of its card. */
export default function ScanCard() {
  const go = useNavigate();
  const scan = useMutation({
    mutationFn: async (file: File) => {
      const found = await upload<{ lamp: string }>("/api/scan", file);
      await go(`/position/${found.lamp}`);
    },
  });
  return (
    <>
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        defaultCamera="environment"
        onSelect={(files) => files?.[0] && scan.mutate(files[0])}
      >
        <Button isDisabled={scan.isPending}>{scan.isPending ? "Reading" : "Scan a card"}</Button>
      </FileTrigger>
      <Refusal why={scan.error?.message} />
    </>
  );
}
