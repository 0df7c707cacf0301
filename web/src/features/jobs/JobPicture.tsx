import { personHere } from "@/api/kept";
import { keptPicture, pictureAddress } from "@/with_you/pictures";
import { useEffect, useState, type ImgHTMLAttributes } from "react";

type Props = Omit<ImgHTMLAttributes<HTMLImageElement>, "src"> & { job: string; picture: string };

/** A picture of a job: the depot's, or where that cannot be had the one on this device. */
export function JobPicture({ job, picture, alt, ...rest }: Props) {
  const [here, setHere] = useState<string | null>(null);
  useEffect(() => () => (here ? URL.revokeObjectURL(here) : undefined), [here]);
  const look = () =>
    void keptPicture(personHere() ?? "", job, picture).then((kept) => kept && setHere(URL.createObjectURL(kept.file)));
  return <img {...rest} src={here ?? pictureAddress(job, picture)} alt={alt} onError={here ? undefined : look} />;
}
