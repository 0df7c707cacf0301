import { drop, type Waiting } from "@/api/outbox";
import { withdrawPicture } from "@/with_you/pictures";

/** Have an entry wait no longer, nor the picture of which it speaks. */
export async function withdraw(each: Waiting): Promise<void> {
  await withdrawPicture(each.maker, each.job, each.entry.target);
  await drop(each);
}
