import { SignIn } from "@/features/sign-in/SignIn";

export const dynamic = "force-dynamic";
export const metadata = { title: "Sign in" };

export default function Page() {
  return <SignIn />;
}
