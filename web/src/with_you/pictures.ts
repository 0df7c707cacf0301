/** Pictures on this device: kept where they cannot be sent, sent before what speaks of them. */
import { answer, answered, api } from "@/api/client";
import { database, type KeptFile } from "@/api/database";
import { jobOf } from "@/api/outbox";

/** What a cut costs at most: a second or two of a slow line. */
const CHUNK_BYTES = 256_000;
const PATIENCE_MS = 30_000;
const CHUNKS = "/api/jobs/{job_id}/pictures/{picture_id}/chunks";

export const pictureAddress = (sheet: string, picture: string) => `/api/jobs/${jobOf(sheet)}/pictures/${picture}`;

/** Send a picture's file itself; its words and marks follow as an entry. */
export async function sendPicture(sheet: string, picture: string, file: Blob): Promise<void> {
  if (file.size > CHUNK_BYTES) return sendInChunks(sheet, picture, file);
  await answer(
    api.POST("/api/jobs/{job_id}/pictures/{picture_id}", {
      params: { path: { job_id: sheet, picture_id: picture } },
      body: file as never,
      bodySerializer: (body) => body,
      headers: { "Content-Type": file.type || "application/octet-stream" },
      signal: AbortSignal.timeout(PATIENCE_MS),
    }),
  );
}

/**
 * Send a file in chunks, from where an earlier try was cut: the core protocol of tus 1.0.0
 * (https://tus.io/protocols/resumable-upload). After the last chunk the server says whether it is a picture.
 */
async function sendInChunks(sheet: string, picture: string, file: Blob): Promise<void> {
  const given = (headers: Record<string, string>) => ({
    params: { path: { job_id: sheet, picture_id: picture } },
    headers: { "Tus-Resumable": "1.0.0", ...headers },
    signal: AbortSignal.timeout(PATIENCE_MS),
  });
  const offset = ({ response }: { response: Response }) => Number(response.headers.get("Upload-Offset"));
  await answered(api.POST(CHUNKS, given({ "Upload-Length": String(file.size) })));
  let there = offset(await answered(api.HEAD(CHUNKS, given({}))));
  do {
    const headers = { "Upload-Offset": String(there), "Content-Type": "application/offset+octet-stream" };
    const body = { body: file.slice(there, there + CHUNK_BYTES) as never, bodySerializer: (each: unknown) => each };
    there = offset(await answered(api.PATCH(CHUNKS, { ...given(headers), ...body })));
  } while (there < file.size);
}

/** Have a picture wait here until the depot can have it. */
export async function keepPicture(person: string, sheet: string, picture: string, file: Blob): Promise<void> {
  const kept: KeptFile = { person, address: pictureAddress(sheet, picture), job: jobOf(sheet), file, waits: true };
  await (await database()).put("files", kept);
}

/** Send the picture of which an entry speaks, where it waits here. Throws a Problem where it was not taken. */
export async function sendKeptPicture(person: string, sheet: string, target: string): Promise<void> {
  const [kind, picture] = target.split(".");
  if (kind !== "picture" || !picture) return;
  const kept = await keptPicture(person, sheet, picture);
  if (!kept?.waits) return;
  await sendPicture(sheet, picture, kept.file);
  await (await database()).put("files", { ...kept, waits: false });
}

/** Have a picture wait no longer, whose entry was withdrawn. */
export async function withdrawPicture(person: string, sheet: string, target: string): Promise<void> {
  const [kind, picture] = target.split(".");
  if (kind !== "picture" || !picture) return;
  const kept = await keptPicture(person, sheet, picture);
  if (kept?.waits) await (await database()).delete("files", [person, kept.address]);
}

/** A picture as this device has it. */
export async function keptPicture(person: string, sheet: string, picture: string): Promise<KeptFile | undefined> {
  return (await database()).get("files", [person, pictureAddress(sheet, picture)]);
}
