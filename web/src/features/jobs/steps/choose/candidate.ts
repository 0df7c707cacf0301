import type { Schemas } from "@/api/client";

export type Candidate = Schemas["CandidateShown"];
export type ReasonShown = Candidate["cells"][number]["reasons"][number];
