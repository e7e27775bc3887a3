import { StrictMode, startTransition } from "react";
import { createRoot } from "react-dom/client";
import { App } from "@/app/App";
import "@/app/nonce";
import "@/app/styles.css";

const root = createRoot(document.getElementById("root") as HTMLElement);

/** In slices, so that a slow phone answers taps between them. */
startTransition(() =>
  root.render(
    <StrictMode>
      <App />
    </StrictMode>,
  ),
);
