import { Button, Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import { does } from "../../commands/command";
import { SHAPE_COMMANDS } from "../../commands/points";
import { ShapeIcon } from "../../ui/shapes";

/** Shapes for the segments that leave the chosen points. */
export function ShapeMenu() {
  const why = SHAPE_COMMANDS[0].why();
  return (
    <MenuTrigger>
      <Button className={`by-choice px-2 ${why ? "faint" : ""}`}>
        <span title={why ?? SHAPE_COMMANDS[0].what} className="contents">
          Shape
        </span>
      </Button>
      <Popover className="popover" offset={4}>
        <Menu
          aria-label="Shape of the segments after the chosen points"
          className="deeds"
          onAction={(id) => SHAPE_COMMANDS.filter((command) => command.id === id).forEach(does)}
          disabledKeys={why ? SHAPE_COMMANDS.map(({ id }) => id) : []}
        >
          {SHAPE_COMMANDS.map((command) => (
            <MenuItem
              key={command.id}
              id={command.id}
              textValue={command.words}
              className={`deed shape-item ${command.on?.() ? "hue" : ""}`}
            >
              <ShapeIcon name={command.shape} />
              <span className="font-semibold">{command.words}</span>
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}
