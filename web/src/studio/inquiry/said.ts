/** What is said of a new inquiry while it is written down. */
export const nothing = {
	kind: "",
	name: "",
	mail: "",
	phone: "",
	profile: "",
	organisation: "",
	source: "",
	campaign: "",
	words: "",
	date: "",
	person: "",
	followUp: false,
	letter: 0,
};

export type Said = typeof nothing;
