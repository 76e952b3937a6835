// Command shoal is the program: it serves the web application, makes the demo,
// and gives scripts the engine without a server.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		if errors.Is(err, context.Canceled) {
			os.Exit(130)
		}
		if code := exit(0); errors.As(err, &code) {
			os.Exit(int(code))
		}
		fmt.Fprintln(os.Stderr, "shoal:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	c := &cobra.Command{
		Use:           "shoal",
		Short:         "Shoal: effects, routing and prints for session engineers",
		SilenceErrors: true, SilenceUsage: true,
	}
	c.AddCommand(
		serveCommand(),
		resetCommand(),
		demoCommand(),
		effectsCommand(),
		processCommand(),
		printCommand(),
		measureCommand(),
		checkCommand(),
		sweepCommand(),
		backupCommand(),
		restoreCommand(),
		doctorCommand(),
		openapiCommand(),
		schemaCommand(),
	)
	return c
}
