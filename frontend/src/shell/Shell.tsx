import { lazy, Suspense, useEffect, useRef, useState, type ReactNode } from "react";
import { NavLink, Link as RouterLink, useLocation, useNavigationType } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../api/client";
import { Button } from "../ui/Button";
import { useLook } from "../theme/useLook";
import { Notices } from "./Notices";
import { Saved } from "./Saved";
import { Whose } from "./Whose";
import { useKeys, type Undo } from "./useKeys";
import { useSteps } from "./useSteps";

const ClashSheet = lazy(() => import("./ClashSheet"));
const KeysSheet = lazy(() => import("./KeysSheet"));

const Bar = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 18px;
  padding: 4px 20px;
  border-bottom: 2px solid var(--ink);
  @media (max-width: 760px) {
    gap: 2px 6px;
    padding: 4px 12px;
  }
`;

const Mark = styled(RouterLink)`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  font-weight: 700;
  text-decoration: none;
`;

const Nav = styled.nav`
  display: flex;
  gap: 2px;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    padding: 0 10px;
    text-decoration: none;
  }
  a[aria-current="page"] {
    font-weight: 700;
    box-shadow: inset 0 -3px var(--mark);
  }
`;

const Skip = styled.a`
  position: absolute;
  left: 12px;
  top: -60px;
  z-index: 30;
  padding: 10px 16px;
  background: var(--ink);
  color: var(--ground);
  &:focus {
    top: 4px;
  }
`;

const Right = styled.div`
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 6px;
`;

const Quiet = styled(Button)`
  border-color: transparent;
  padding: 0 10px;
  &[data-disabled] {
    border-color: transparent;
  }
`;

const Page = styled.main`
  padding: 10px 20px 8px;
  max-width: 1320px;
  margin: 0 auto;
  @media (max-width: 760px) {
    /* Room for what stands at the bottom under the thumb. */
    padding: 10px 12px 130px;
  }
  outline: none !important;
`;

interface Props {
  /** What stands in it. */
  children: ReactNode;
  /** What can be taken back or done again in this view. */
  steps?: Schemas["Steps"] | undefined;
  /** The view that this one is part of. */
  up?: string;
  /** What the view shows, for the window's title and for who hears it; none while that is not known yet. */
  title?: string | undefined;
}

/** Header, keys and warnings around every view. */
export function Shell({ children, steps, up = "/", title }: Props) {
  const [look, flip] = useLook();
  const [help, setHelp] = useState(false);
  const stepping = useSteps(steps, up);
  const undo: Undo | undefined = steps && {
    undo: steps.undo?.label ?? "",
    redo: steps.redo?.label ?? "",
    onUndo: () => stepping.want("undo"),
    onRedo: () => stepping.want("redo"),
  };

  useKeys(undo, flip, () => setHelp(true));
  const page = useArrival(title);

  return (
    <>
      <Skip href="#work">Skip to the work</Skip>
      <Bar>
        <Mark to="/">
          <svg width="26" height="26" viewBox="0 0 32 32" aria-hidden="true">
            <path d="M3 8h9v8h8v8h9" fill="none" stroke="currentColor" strokeWidth="3" />
            <circle cx="24" cy="9" r="5" fill="var(--mark)" />
          </svg>
          Swap Glow
        </Mark>
        <Nav aria-label="Views">
          <NavLink to="/" end>
            Bench
          </NavLink>
          <NavLink to="/day">Day</NavLink>
          <NavLink to="/drawer">Drawer</NavLink>
        </Nav>
        <Whose />
        <Saved />
        <Right>
          {undo && <Steps undo={undo} />}
          <Quiet onPress={flip}>{look === "day" ? "Lamp room (dark)" : "Day (light)"}</Quiet>
          <Quiet onPress={() => setHelp(true)} aria-label="? Keys">
            ?
          </Quiet>
        </Right>
      </Bar>
      <Notices
        onUndo={(step) => void stepping.act("undo", step)}
        onPass={(notice) => void stepping.pass(notice)}
      />
      <Page id="work" ref={page} tabIndex={-1}>
        {children}
      </Page>
      {help && (
        <Suspense fallback={null}>
          <KeysSheet open onClose={() => setHelp(false)} />
        </Suspense>
      )}
      {stepping.clash && (
        <Suspense fallback={null}>
          <ClashSheet steps={stepping} />
        </Suspense>
      )}
    </>
  );
}

/** Where the last view was; a new one takes the focus, and so is heard. */
let arrived: string | undefined;

/** Name the window after the view, and begin at its top where one has gone to another. */
function useArrival(title: string | undefined) {
  const page = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const how = useNavigationType();
  useEffect(() => {
    if (title === undefined) return;
    document.title = `${title} · Swap Glow`;
    if (arrived !== undefined && arrived !== pathname) {
      page.current?.focus({ preventScroll: true });
      // Who goes back goes back to where they were.
      if (how !== "POP") window.scrollTo?.(0, 0);
    }
    arrived = pathname;
  }, [title, pathname, how]);
  return page;
}

interface StepsProps {
  /** Step back and forth. */
  undo: Undo;
}

function Steps({ undo }: StepsProps) {
  return (
    <>
      <Quiet
        isDisabled={!undo.undo}
        onPress={undo.onUndo}
        aria-label={undo.undo ? `Undo ${undo.undo}` : "Undo"}
      >
        Undo
      </Quiet>
      <Quiet
        isDisabled={!undo.redo}
        onPress={undo.onRedo}
        aria-label={undo.redo ? `Redo ${undo.redo}` : "Redo"}
      >
        Redo
      </Quiet>
    </>
  );
}
