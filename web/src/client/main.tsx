import "../ui/theme.css";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { keepFocus } from "../ui/keepFocus";
import { Notice } from "./Frame";

// a visitor loads the page of the door they came to, and no other
const InquiryPage = lazy(() => import("./InquiryPage"));
const ProjectPage = lazy(() => import("./ProjectPage"));
const RoomPage = lazy(() => import("./RoomPage"));
const CardPage = lazy(() => import("./CardPage"));
const CheckPage = lazy(() => import("./CheckPage"));

const [, door, name = ""] = location.pathname.split("/");

keepFocus();
createRoot(document.getElementById("root")!).render(
	<StrictMode>
		<Suspense fallback={<Notice title="One moment" />}>
			{door === "i" && <InquiryPage slug={name} />}
			{door === "p" && <ProjectPage link={name} />}
			{door === "rooms" && <RoomPage code={name} />}
			{door === "check" && <CheckPage />}
			{door === "cards" && <CardPage session={name} />}
		</Suspense>
	</StrictMode>,
);
