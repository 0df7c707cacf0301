import { isAway, onReach } from "@/api/reach";
import { useSyncExternalStore } from "react";

/** Whether the depot's server was not reached when it was last tried. */
export const useAway = () => useSyncExternalStore(onReach, isAway);
