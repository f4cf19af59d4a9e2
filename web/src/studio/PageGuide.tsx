import { useLocation } from "react-router";

const guides: [RegExp, string][] = [
	[
		/^\/today/,
		"What waits for you, what is about to be sent, and the day. New inquiries come first, then what has waited longest. A letter that asks first leaves only when you press Send; j and k walk everything here.",
	],
	[
		/^\/turns/,
		"Every open project by whose turn it is: yours left of the spine, the client’s right of it, the further out the longer. Press a gate’s name to see that gate alone. Nothing is dragged: a project moves by what happens to it.",
	],
	[
		/^\/register/,
		"Every project in a table. Choose columns, narrow it, put it together by month, kind or client, keep the view, or take it along as CSV.",
	],
	[
		/^\/came-in/,
		"What clients did, day by day, the last first; narrowed to one sort where you look for it.",
	],
	[
		/^\/week/,
		"Which work is done on which day, and how full each day is against your open hours. Walk to a task and press 1 to 7, h or l, or drag it; its due date stays. What goes out by itself and what falls due is named in its cell.",
	],
	[
		/^\/season/,
		"Open projects across months: phases as they were and as they will be, the date that matters, payments. The foot shows how full your weeks are; the head says when the next work begins and from when new work could.",
	],
	[
		/^\/projects\/\d+\/proposal/,
		"What is included, what the client chooses between, and what they may add. It is kept as you type; what is missing before it can go is said beside it.",
	],
	[
		/^\/projects\/\d+\/bill/,
		"What is asked for besides the agreed price, or without one. It is kept as you type, and gets its number when it is issued; from then on it never changes.",
	],
	[
		/^\/reports/,
		"What became of the inquiries that came in these days: how far they came, how long each gate took, who and what brought how much, and the goals of the year. Press a figure to see the projects behind it.",
	],
	[
		/^\/money\/bank/,
		"What came into the account, line by line. j and k walk them; 1 books a line on what is offered first, o on others or several, x sets it aside. What left no doubt is booked already, and can be undone.",
	],
	[
		/^\/money\/accounts/,
		"Where your money lies: each account with its balance, and what moved it. A transfer between two of them is neither income nor cost.",
	],
	[
		/^\/money\/accountant/,
		"Tax by rate over a quarter, a month or any days, and each year as a folder: journal, papers and receipts, with a total that proves itself.",
	],
	[
		/^\/money$/,
		"The year by month: what came, what is owed, what is agreed and what is likely; below the line what was spent. Press a figure to see what it is made of. Drop a receipt anywhere to write down a cost.",
	],
	[
		/^\/money/,
		"All invoices of all clients: what is open, what is late, by age, client or month, with the sums of each currency.",
	],
	[
		/^\/projects/,
		"The gates say where the project stands and why; the present one carries the next acts. Below them the line: what happened above today’s rule, what is planned below it. The sheet beside it opens what the gate needs; the rest is one line each. Drop a file anywhere to keep it.",
	],
	[
		/^\/people/,
		"Clients and colleagues with what was last said and what they brought.",
	],
	[
		/^\/templates/,
		"What a kind of work brings along. Projects that have begun keep what they began with, and papers that were sent never change.",
	],
	[
		/^\/studio/,
		"Who you are and how you work: on letters, papers and pages, and in what is done without asking.",
	],
	[
		/^\/tray/,
		"What came without a project: slips and letters. File each with a project, or make an inquiry of it.",
	],
];

/** What the page at hand is for, in two or three sentences. */
export function PageGuide() {
	const { pathname } = useLocation();
	const guide = guides.find(([path]) => path.test(pathname))?.[1];
	return guide ? <p className="pb-4">{guide}</p> : null;
}
