import type { Metadata } from "next";
import { PeopleRoom, type PersonLine } from "@/features/people/people-room";
import { listPeople, listPractice } from "@/store";
import { today } from "../../server/horse-care";
import { getStore } from "../../server/store";

export const metadata: Metadata = { title: "People" };

export default async function PeoplePage() {
  const store = await getStore();
  const [people, practice] = await Promise.all([listPeople(store), listPractice(store)]);
  return (
    <PeopleRoom
      today={today(store)}
      people={people.map(
        ({ id, name, role }) => ({ id, name, role, practice: practice.filter((one) => one.person_id === id) }) as PersonLine,
      )}
    />
  );
}
