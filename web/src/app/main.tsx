import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import "./styles.css";
import { takeOverKept } from "@/api/kept";
import { startOnDevice } from "@/with_you/start";
import { startTheme } from "./theme";

startTheme();
takeOverKept();
startOnDevice();
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
