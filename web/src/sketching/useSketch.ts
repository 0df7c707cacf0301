import { answer, api, type Schemas } from "@/api/client";
import { keepText, keepValue, keptValue } from "@/api/kept";
import { useAddPicture } from "@/pictures/api";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";

export type SketchStart = { marking: string; family: string | null };
export type SketchFields = Omit<Schemas["SketchGiven"], "lines"> & { lines: string };

const keyOf = (start: SketchStart) => `sketch ${start.marking}`;

/** A sketch in hand: kept on this device as it is touched, read back by the server, and kept by it in the end. */
export function useSketch(start: SketchStart) {
  const [fields, setFields] = useState<SketchFields>(() => ({ ...begun(start), ...draft(keyOf(start)) }));
  const [picture, setPicture] = useState<{ file: File; url: string } | null>(null);
  const add = useAddPicture();
  const queries = useQueryClient();
  const lines = useDeferredValue(fields.lines);
  const read = useQuery({
    queryKey: ["sketch", lines],
    queryFn: () => answer(api.POST("/api/sketches/read", { body: { lines } })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const keep = useMutation({
    mutationFn: async () => {
      const board = await answer(api.POST("/api/sketches", { body: fields }));
      if (picture)
        await add
          .mutateAsync({ partNumber: board.part_number, file: picture.file, of: "board", under: true })
          .catch((error: unknown) => {
            // the sketch is kept: keeping it again sends the same one under the number that it has, and the picture
            set({ part_number: board.part_number });
            throw error;
          });
      return board;
    },
    onSuccess: () => {
      keepText(keyOf(start), null);
      void queries.invalidateQueries({ queryKey: ["families"] });
      void queries.invalidateQueries({ queryKey: ["boards"] });
    },
  });
  const set = (change: Partial<SketchFields>) =>
    setFields((old) => {
      const next = { ...old, ...change };
      keepValue(keyOf(start), next);
      return next;
    });
  /** Whether what is shown is what the server made of these very lines. */
  const readBack = lines === fields.lines && !read.isPending && !read.isPlaceholderData;
  return { fields, set, read, readBack, keep, picture, setPicture };
}

function begun({ marking, family }: SketchStart): SketchFields {
  return { part_number: marking, family, kind: "", maker: "", title: "", lines: "" };
}

/** The sketch of this marking that this device kept. */
function draft(key: string): Partial<SketchFields> {
  const kept = keptValue<SketchFields>(key);
  return kept !== null && typeof kept.lines === "string" ? kept : {};
}
