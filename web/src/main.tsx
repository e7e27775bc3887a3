import { StrictMode, startTransition } from "react";
import { createRoot } from "react-dom/client";
import { App, ready } from "@/app/App";
import "@/app/nonce";
import "@/app/styles.css";

const root = createRoot(document.getElementById("root") as HTMLElement);

/** Once the view of this address is there, and in slices, so that a slow phone answers taps between them. */
void ready.then(() =>
  startTransition(() =>
    root.render(
      <StrictMode>
        <App />
      </StrictMode>,
    ),
  ),
);
