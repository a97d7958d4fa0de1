// Writes the pages and drawings of docs/ that follow from the code: what events carry, and which room uses which.
import { writeFileSync } from "node:fs";
import { eventsPage } from "./events-page";
import { drawRooms, readRooms } from "./rooms";

writeFileSync("docs/events.md", eventsPage());
writeFileSync("docs/rooms.svg", drawRooms(readRooms(["core"])));
writeFileSync("docs/rooms-above.svg", drawRooms(readRooms(["features", "store"])));
