// Writes the pages and drawings of docs/ that follow from the code: what events carry, what the rungs of the library say, and which room uses which.
import { writeFileSync } from "node:fs";
import { eventsPage } from "./events-page";
import { rungsPage } from "./library-rungs";
import { drawRooms, readRooms } from "./rooms";

writeFileSync("docs/events.md", eventsPage());
writeFileSync("docs/library-rungs.md", rungsPage());
writeFileSync("docs/rooms.svg", drawRooms(readRooms(["core"])));
writeFileSync("docs/rooms-above.svg", drawRooms(readRooms(["features", "store"])));
