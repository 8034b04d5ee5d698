import { clsx } from "clsx";
import { type LucideIcon, PanelRightClose, PanelRightOpen } from "lucide-react";
import type { ReactNode } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";

export interface RailTab<K extends string> {
  id: K;
  name: string;
  Icon: LucideIcon;
}

interface Props<K extends string> {
  label: string;
  tabs: RailTab<K>[];
  current: K;
  /** Closed, only the rail is there. */
  open: boolean;
  onOpen: (id: K) => void;
  onClose: () => void;
  /** What stands at the foot of the rail, over the button that closes the panel. */
  foot?: ReactNode;
  children: ReactNode;
}

/** One panel that turns between several, with a rail of named icons; closed it leaves its room to others. */
export function Rail<K extends string>({ label, tabs, current, open, onOpen, onClose, foot, children }: Props<K>) {
  return (
    <Tabs
      orientation="vertical"
      selectedKey={current}
      onSelectionChange={(key) => onOpen(key as K)}
      className="flex h-full min-h-0 flex-row-reverse"
    >
      <div className="rail">
        <TabList aria-label={label} className="rail-list">
          {tabs.map(({ id, name, Icon }) => (
            <Tab
              key={id}
              id={id}
              className={clsx("rail-tab", open && id === current && "rail-tab-open")}
              onPress={() => onOpen(id)}
            >
              <Icon size={17} aria-hidden="true" />
              {name}
            </Tab>
          ))}
        </TabList>
        <div className="mt-auto">{foot}</div>
        <button
          type="button"
          className="rail-tab"
          aria-expanded={open}
          title={open ? "Close the panel" : "Open the panel"}
          aria-label={open ? "Close the panel" : "Open the panel"}
          onClick={open ? onClose : () => onOpen(current)}
        >
          {open ? <PanelRightClose size={17} aria-hidden="true" /> : <PanelRightOpen size={17} aria-hidden="true" />}
          {open ? "Close" : "Open"}
        </button>
      </div>
      {open && (
        <TabPanel key={current} id={current} className="rail-panel">
          {children}
        </TabPanel>
      )}
    </Tabs>
  );
}
