import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./shell/App";
import { install } from "./shell/installing";
import { player } from "./sound/player";
import { followWith } from "./state/followers";
import { Guard } from "./ui/Guard";
import "./styles.css";

followWith(player);
install();

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <Guard what="The page">
      <App />
    </Guard>
  </StrictMode>,
);
