"use client";

import { Button, Form, Input } from "antd";
import { useState } from "react";
import styles from "./SignIn.module.css";

/** Asks for the passphrase, where one is set, and goes where one wanted to go. */
export function SignIn() {
  const [problem, setProblem] = useState<string>();
  const [isAsking, setIsAsking] = useState(false);
  const signIn = async ({ passphrase }: { passphrase: string }) => {
    setIsAsking(true);
    const response = await fetch("/api/session", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ passphrase }),
    }).catch(() => undefined);
    setIsAsking(false);
    if (response?.ok) return location.replace(wanted());
    const { title } = ((await response?.json().catch(() => undefined)) ?? {}) as { title?: string };
    setProblem(title ?? "Nigrographe does not answer just now. Nothing is lost; try again in a moment");
  };
  return (
    <main className={styles.page}>
      <div className={styles.card}>
        <Form
          layout="vertical"
          requiredMark={false}

          onFinish={(values: { passphrase: string }) => void signIn(values)}
        >
          <h1 className={styles.name}>Nigrographe</h1>
          <Form.Item
            label="Passphrase"
            name="passphrase"
            help={problem && `${problem[0]!.toUpperCase()}${problem.slice(1)}.`}
            validateStatus={problem ? "error" : ""}
            rules={[{ required: true, message: "Type the passphrase" }]}
          >
            <Input.Password autoFocus autoComplete="current-password" onChange={() => setProblem(undefined)} />
          </Form.Item>
          <Button type="primary" htmlType="submit" loading={isAsking} block>
            Sign in
          </Button>
        </Form>
      </div>
    </main>
  );
}

/** An address of our own, or the contact sheet. */
function wanted(): string {
  const to = new URLSearchParams(location.search).get("to") ?? "/";
  return /^\/(?![/\\])/.test(to) ? to : "/";
}
