/** A section in the order of work: where it stands, what it is called, the key that goes there. What waits there is counted by its path. */
export interface Section {
  path: string;
  name: string;
  key: string;
}
