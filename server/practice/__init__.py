"""Practice: tasks on simulated boards, what somebody can do, and groups of learners. Nothing here touches jobs, counts or stock."""
