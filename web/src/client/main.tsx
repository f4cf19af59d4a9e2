import "../ui/theme.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { CardPage } from "./CardPage";
import { InquiryPage } from "./InquiryPage";
import { ProjectPage } from "./ProjectPage";
import { RoomPage } from "./RoomPage";

const [, door, name = ""] = location.pathname.split("/");

createRoot(document.getElementById("root")!).render(
	<StrictMode>
		{door === "i" && <InquiryPage slug={name} />}
		{door === "p" && <ProjectPage link={name} />}
		{door === "rooms" && <RoomPage code={name} />}
		{door === "cards" && <CardPage session={name} />}
	</StrictMode>,
);
