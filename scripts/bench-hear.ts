import { mixedChance } from "@/core/chance";
import { MarkListener, TaughtSounds, teachMark } from "@/core/hearing";
import { penSound, SAMPLE_RATE, teachingSound } from "@/tests/support/sounds";

/** For npm run bench: what listening costs, in pieces of 128 samples as the audio thread hands them over. Prints JSON. */
const SECONDS = 60;
const lesson = new TaughtSounds(SAMPLE_RATE);
const lessonSound = teachingSound("word", 8, mixedChance("bench, taught"));
const sounds = [];
for (let at = 0; at < lessonSound.length; at += 128) sounds.push(...lesson.push(lessonSound.subarray(at, at + 128)));
const taught = teachMark(sounds);
if (taught === null) throw new Error("the marker could not be taught");
const { sound } = penSound("word", { marks: 30, lasts: SECONDS, windDb: 20, hoovesDb: 10 }, mixedChance("bench, pen"));
const listener = new MarkListener(taught.template, SAMPLE_RATE);
const before = process.cpuUsage();
for (let at = 0; at < sound.length; at += 128) listener.push(sound.subarray(at, at + 128));
const { user, system } = process.cpuUsage(before);
process.stdout.write(JSON.stringify({ seconds: SECONDS, sharePercent: ((user + system) / 1e6 / SECONDS) * 100 }));
