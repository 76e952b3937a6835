package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"shoal/internal/server"
	"shoal/internal/store"
)

// resetCommand lets whoever keeps the machine give an account another password, their own above all: it works beside a Shoal that
// is running.
func resetCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "reset NAME", Short: "Make a link with which somebody chooses another password", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			private()
			st, err := store.Open(c.Context(), data)
			if err != nil {
				return err
			}
			defer st.Close()
			path, err := server.ResetLink(c.Context(), st, args[0])
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "Behind the address of this Shoal, once, within a day:\n  %s\n", path)
			return nil
		},
	}
	c.Flags().StringVar(&data, "data", "data", "folder for the database and the audio")
	return c
}
