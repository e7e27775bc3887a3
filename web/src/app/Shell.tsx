import { clsx } from "clsx";
import { Moon, Sun } from "lucide-react";
import { createContext, memo, startTransition, use, useCallback, useState } from "react";
import { createPortal } from "react-dom";
import { NavLink, Outlet, ScrollRestoration, useMatch, useNavigate } from "react-router";
import { Calculator } from "./Calculator";
import { Refused } from "./Refused";
import { SaveState } from "./SaveState";
import { useShortcut } from "./shortcuts";
import { useTheme } from "./theme";

const VIEWS = [
  { to: "/", name: "Today", keys: "g>t" },
  { to: "/floor", name: "Floor", keys: "g>f" },
  { to: "/compose", name: "Compose", keys: "g>c" },
  { to: "/season", name: "Season", keys: "g>e" },
  { to: "/ledger", name: "Ledger", keys: "g>l" },
  { to: "/strength", name: "Strength", keys: "g>s" },
  { to: "/kit", name: "Kit", keys: "g>k" },
];

const StatusPlace = createContext<HTMLElement | null>(null);

/** Put what a view has to say into the right end of the top bar. */
export function Status({ children }: { children: React.ReactNode }) {
  const place = use(StatusPlace);
  return place && createPortal(children, place);
}

/** The frame around every view: the name, the views, and what the view has to say about itself. */
export function Shell() {
  const [status, setStatus] = useState<HTMLElement | null>(null);
  const putStatus = useCallback((place: HTMLElement | null) => startTransition(() => setStatus(place)), []);
  return (
    <StatusPlace value={status}>
      <Frame onPlace={putStatus} />
    </StatusPlace>
  );
}

const Frame = memo(function Frame({ onPlace }: { onPlace: (place: HTMLElement | null) => void }) {
  const [theme, turn] = useTheme();
  const playing = useMatch("/floor/:id") !== null;
  useShortcut("shift+d", "Shift D", "Dark or light", turn);
  return (
    <>
      <a href="#main" className="sr-only focus:not-sr-only">
        Skip to the view
      </a>
      <header className="flex flex-wrap items-center gap-x-8 border-b border-ink px-4 sm:px-7">
        <NavLink to="/" className="wide py-2 text-xl font-extrabold sm:py-3.5">
          Fortis
        </NavLink>
        <nav
          aria-label="Views"
          className={clsx("order-last flex w-full sm:order-none sm:w-auto", playing && "max-sm:hidden")}
        >
          {VIEWS.map((view) => (
            <ViewLink key={view.to} {...view} />
          ))}
        </nav>
        <div className="ml-auto flex items-center gap-x-5 text-[15px] text-faint">
          <div ref={onPlace} className="contents" />
          <SaveState />
        </div>
        <button
          type="button"
          onClick={turn}
          aria-label={theme === "dark" ? "Light theme" : "Dark theme"}
          className="grid size-11 place-items-center text-faint hover:text-ink"
        >
          {theme === "dark" ? <Sun size={18} /> : <Moon size={18} />}
        </button>
      </header>
      <ScrollRestoration />
      <Calculator />
      <Refused />
      <main id="main">
        <Outlet />
      </main>
    </>
  );
});

function ViewLink({ to, name, keys }: (typeof VIEWS)[number]) {
  const go = useNavigate();
  useShortcut(keys, keys.toUpperCase().replace(">", " then "), name, () => go(to));
  return (
    <NavLink
      to={to}
      end={to === "/"}
      className={({ isActive }) =>
        clsx(
          "-mb-px flex min-h-11 flex-auto items-center justify-center border-b-3 px-0.5 max-sm:text-[clamp(12px,3.8vw,15px)] sm:flex-none sm:px-3.5 sm:py-3.5",
          isActive ? "border-work font-bold" : "border-transparent text-faint hover:text-ink",
        )
      }
    >
      {name}
    </NavLink>
  );
}
